import pg from "pg";

interface AuthenticationHandlers {
  _handleAuthCleartextPassword: () => void;
  _handleAuthMD5Password: () => void;
  emit: (event: string, error: Error) => void;
  connection: { stream: { destroy: (error: Error) => void } };
}

function refuse(this: AuthenticationHandlers): void {
  this.connection.stream.destroy(
    new Error("what answers at the database's address asks for the password itself, which the database never does"),
  );
}

/**
 * Lets no connection of this process hand its password over: our database asks for proof of it only (scram). Whoever else
 * listens at its address while it is stopped could ask for the password as it is, and would get it.
 */
export function provePasswordsOnly(): void {
  const handlers = pg.Client.prototype as unknown as AuthenticationHandlers;
  handlers._handleAuthCleartextPassword = refuse;
  handlers._handleAuthMD5Password = refuse;
}

/** What commands may ask of the field; the field fills it in while it is shown. */
export const fieldHandle: { fit: () => void } = { fit: () => undefined };

import { session } from "../page-session.ts";
import type { Rules, World } from "@keen-pebble/core/world";
import type { Logs } from "@keen-pebble/core/edit";
import { memo, useMemo, useState } from "react";
import Dropdown from "react-bootstrap/Dropdown";
import { plural } from "../look/plural.ts";
import { logTitle, rulesNamed } from "../session/log/log-title.ts";
import { useBench, useProject } from "../use-session.ts";
import Form from "react-bootstrap/Form";
import { BareButton } from "../look/bare-button.tsx";

/** The rule set that the shown log goes by: choose another, lay one beside, copy, rename, take away. */
export const RulesMenu = memo(function RulesMenu({ world, rules }: { readonly world: World; readonly rules: Rules }) {
  const [naming, setNaming] = useState(false);
  const walking = useBench((state) => state.walk !== null);
  const beside = useBench((state) => (state.beside?.where.kind === "rules" ? state.beside.where.rules : null));
  if (naming) return <NameField rules={rules} onDone={() => setNaming(false)} />;
  const others = world.rules.filter(({ id }) => id !== rules.id);
  return (
    <Dropdown align="end">
      <Dropdown.Toggle
        variant="plain"
        className="rules-toggle"
        disabled={walking}
        aria-label={`Rule set: ${rules.name}`}
      >
        <span className="quiet">Rules</span> {rules.name}
      </Dropdown.Toggle>
      <RulesItems world={world} rules={rules} others={others} beside={beside} onRename={() => setNaming(true)} />
    </Dropdown>
  );
});

/** What can be done with the rule set that the log goes by. */
function RulesItems({
  world,
  rules,
  others,
  beside,
  onRename,
}: {
  readonly world: World;
  readonly rules: Rules;
  readonly others: Rules[];
  readonly beside: string | null;
  readonly onRename: () => void;
}) {
  const logs = useProject((state) => state.project?.logs ?? null);
  const uses = useMemo(() => usesOf(logs, world.activeRules), [logs, world.activeRules]);
  return (
    <Dropdown.Menu>
      <Dropdown.Header>This log goes by</Dropdown.Header>
      {world.rules.map(({ id, name, gait }) => (
        <Dropdown.Item
          key={id}
          as="button"
          active={id === rules.id}
          aria-current={id === rules.id}
          title={whichLogs(uses.get(id) ?? [])}
          onClick={() => session.ruleSets.goBy(id)}
        >
          {name}{" "}
          <span className="quiet">
            {gait}
            {id === world.activeRules ? ", default rules" : ""}, {plural(uses.get(id)?.length ?? 0, "log")}
          </span>
        </Dropdown.Item>
      ))}
      <Dropdown.Divider />
      {others.map(({ id, name }) => (
        <Dropdown.Item key={id} as="button" onClick={() => session.beside.layBeside(beside === id ? null : id)}>
          {beside === id ? `Stop comparing with ${name}` : `Compare with ${name}`}
        </Dropdown.Item>
      ))}
      {others.length === 0 && (
        <Dropdown.ItemText className="quiet">Copy it, change the copy, and compare the two</Dropdown.ItemText>
      )}
      <Dropdown.Divider />
      <Dropdown.Item as="button" onClick={() => session.ruleSets.copyRules(rules.id)}>
        Copy {rules.name}
      </Dropdown.Item>
      <Dropdown.Item as="button" onClick={onRename}>
        Rename {rules.name}
      </Dropdown.Item>
      <Dropdown.Item as="button" onClick={session.takenHome.toggle}>
        {rules.name} as a program <span className="quiet">Shift+T</span>
      </Dropdown.Item>
      <RulesLast world={world} rules={rules} others={others} />
    </Dropdown.Menu>
  );
}

/** So many logs are named. */
const MOST_NAMED = 12;

/** The titles of the logs that go by each rule set. */
function usesOf(logs: Logs | null, activeRules: string): ReadonlyMap<string, readonly string[]> {
  const uses = new Map<string, string[]>();
  for (const [log, text] of logs ?? []) {
    const rules = rulesNamed(text) ?? activeRules;
    const titles = uses.get(rules) ?? [];
    titles.push(logTitle(text, log));
    uses.set(rules, titles);
  }
  return uses;
}

/** Which logs go by a rule set, one a line. */
function whichLogs(titles: readonly string[]): string {
  if (titles.length === 0) return "No log goes by it";
  const more = titles.length - MOST_NAMED;
  return [...titles.slice(0, MOST_NAMED), ...(more > 0 ? [`and ${more} more`] : [])].join("\n");
}

/** What is done with a rule set among the others. */
function RulesLast({
  world,
  rules,
  others,
}: {
  readonly world: World;
  readonly rules: Rules;
  readonly others: Rules[];
}) {
  return (
    <>
      {rules.id !== world.activeRules && (
        <Dropdown.Item as="button" onClick={() => session.ruleSets.makeWorldsOwn(rules.id)}>
          Make {rules.name} the default rules
        </Dropdown.Item>
      )}
      {others.length > 0 && (
        <Dropdown.Item as="button" onClick={() => session.ruleSets.removeRules(rules.id)}>
          Delete {rules.name}
        </Dropdown.Item>
      )}
    </>
  );
}

function NameField({ rules, onDone }: { readonly rules: Rules; readonly onDone: () => void }) {
  const [name, setName] = useState(rules.name);
  const keep = (): void => {
    const text = name.trim();
    if (text !== "" && text !== rules.name) session.ruleSets.renameRules(rules.id, text);
    onDone();
  };
  return (
    <Form
      className="rules-name"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <Form.Control
        aria-label="Name of the rule set"
        autoFocus
        maxLength={80}
        value={name}
        onChange={(event) => setName(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === "Escape") onDone();
        }}
      />
      <BareButton icon="check" name="Keep the name" variant="plain" type="submit" />
    </Form>
  );
}

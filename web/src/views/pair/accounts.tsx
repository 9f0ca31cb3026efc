import { type AccountTask, accountTasks, plural, putPart } from '@inventario/core';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';

/** Makers’ accounts: whose, and linked to which apps. A password is nowhere. */
export function Accounts() {
  const { known } = useJob();
  const accounts = accountTasks(known);
  if (accounts.length === 0) return null;
  return (
    <section aria-label="Makers’ accounts">
      <h2 className="mb-1 font-bold">Makers’ accounts</h2>
      <ul className="flex flex-col gap-2">
        {accounts.map((account) => (
          <li key={account.maker} className="rounded-md border border-rule p-2">
            <p>
              <b>{account.maker}</b>, {plural(account.devices, 'device')}:{' '}
              {account.record ? `the ${account.record.holder ?? 'client'}’s` : 'not made yet'}
            </p>
            <AccountKeys account={account} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is next for an account: made by whom, then linked to each app once for all devices. */
export function AccountKeys({ account }: { account: AccountTask }) {
  const { apply } = useJob();
  const { maker, record, links } = account;
  const make = (holder: 'client' | 'installer') => {
    const id = newId();
    apply([putPart('account', id, { id, maker, holder })], `Account of ${maker} made`);
  };
  if (!record)
    return (
      <div className="mt-1 flex flex-wrap gap-1">
        <Button onClick={() => make('client')}>It is the client’s</Button>
        <Button onClick={() => make('installer')}>It is the installer’s</Button>
      </div>
    );
  const link = (platform: string) =>
    apply(
      [
        {
          kind: 'account',
          id: record.id,
          base: null,
          append: { links: [{ platform, at: instant(), outcome: 'linked' }] },
        },
      ],
      `${maker} linked to ${platform}`,
    );
  return (
    <div className="mt-1 flex flex-wrap gap-1">
      {links.map(({ platform, outcome }) =>
        outcome === 'linked' ? (
          <span key={platform} className="py-2">
            ✓ {platform}
          </span>
        ) : (
          <Button key={platform} onClick={() => link(platform)}>
            Linked to {platform}
          </Button>
        ),
      )}
    </div>
  );
}

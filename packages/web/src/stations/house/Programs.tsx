/** Programs of others: the tokens they come with, and the addresses the house calls by itself. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Hook, Token } from '@zabrik/contract';
import { webAddress } from '@zabrik/contract/webAddress';
import type { ReactNode } from 'react';
import { z } from 'zod';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Select } from '../../kit/Select.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { ForChefs, HouseHead } from './HouseHead.tsx';
import { callsWords, scopeNames, tokenWords, topicNames } from './programWords.ts';

/** A secret the one moment it stands anywhere. */
const Once = ({ says, secret, onSeen }: { readonly says: ReactNode; readonly secret: string; onSeen: () => void }) => (
  <div role="status" className="grid justify-items-start gap-2 rounded-plate border-2 border-ink bg-white p-4">
    <p>{says} It is not shown again.</p>
    <output className="figure text-[16px] break-all select-all">{secret}</output>
    <span className="flex flex-wrap gap-2">
      <Button onClick={() => void navigator.clipboard?.writeText(secret)}>Copy</Button>
      <Button onClick={onSeen}>I have it</Button>
    </span>
  </div>
);

const tokenForm = z.object({
  name: z.string().trim().min(1, 'What it is for').max(120),
  scope: z.enum(['read', 'work']),
  days: z.enum(['30', '90', '366']),
  pin: z.string().regex(/^\d{4,6}$/, 'Your PIN'),
});

function NewToken({ again }: { readonly again: () => void }) {
  const blank = { name: '', scope: 'read', days: '90', pin: '' } as const;
  const form = useKeptForm('programs/token', tokenForm, blank, ['pin']);
  const { register, handleSubmit, formState } = form;
  const { errors } = formState;
  const make = useCommand(api.programs.makeToken, { onDone: again });
  return (
    <form
      aria-label="A new token"
      className="grid gap-3"
      onSubmit={(event) =>
        void handleSubmit(({ days, ...said }) => make.send({ body: { ...said, days: Number(days) } }, form.clear))(
          event,
        )
      }
    >
      <StillHere draft={form.kept} />
      <div className="grid items-start gap-3 sm:grid-cols-2 lg:grid-cols-[1.4fr_1.3fr_1fr_1fr]">
        <Field label="For which program" error={errors.name?.message} {...register('name')} />
        <Select
          label="It may"
          options={[
            { value: 'read', name: scopeNames.read },
            { value: 'work', name: scopeNames.work },
          ]}
          {...register('scope')}
        />
        <Select
          label="Holds for"
          options={[
            { value: '30', name: '30 days' },
            { value: '90', name: '90 days' },
            { value: '366', name: 'a year' },
          ]}
          {...register('days')}
        />
        <Field
          label="Your PIN"
          type="password"
          inputMode="numeric"
          autoComplete="off"
          error={errors.pin?.message}
          {...register('pin')}
        />
      </div>
      {make.error !== null && <Notice tone="alarm">{make.error.message}</Notice>}
      <Button type="submit" variant="strong" className="h-11 justify-self-start" disabled={make.pending}>
        Make a token
      </Button>
      {make.answer !== undefined && (
        <Once says={`The token of ${make.answer.made.name}.`} secret={make.answer.token} onSeen={make.reset} />
      )}
    </form>
  );
}

function TokenRow({ token, again }: { readonly token: Token; readonly again: () => void }) {
  const end = useCommand(api.programs.endToken, { onDone: again });
  const holds = token.endedAt === null && token.until > new Date().toISOString();
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-2 rounded-plate border border-line bg-white px-4 py-3">
      <span className={`min-w-44 flex-1 ${holds ? '' : 'text-ink-soft'}`}>
        <strong className="font-head text-lg break-words">{token.name}</strong>
        <span className="block text-[15px] text-ink-soft">{tokenWords(token, new Date())}</span>
        {end.error !== null && <Notice tone="alarm">{end.error.message}</Notice>}
      </span>
      {holds && (
        <Button
          disabled={end.pending}
          aria-label={`Take back: ${token.name}`}
          onClick={() => end.send({ params: { tokenId: token.id } })}
        >
          Take back
        </Button>
      )}
    </li>
  );
}

function Tokens() {
  const client = useQueryClient();
  const tokens = useQuery({ queryKey: ['house', 'tokens'], queryFn: () => call(api.programs.tokens, {}) });
  const again = (): void => void client.invalidateQueries({ queryKey: ['house', 'tokens'] });
  return (
    <section aria-label="Tokens" className="grid gap-3">
      <div>
        <h2 className="text-xl font-bold">Tokens</h2>
        <p className="text-ink-soft">
          A program that comes with one acts for you: it may do what your role may, and no more. It gives no PIN, makes
          no person and takes no weight.{' '}
          <a className="underline" href="/api/v1/docs">
            What can be asked
          </a>
        </p>
      </div>
      <div className="rounded-plate border-[1.5px] border-ink bg-white p-4">
        <NewToken again={again} />
      </div>
      {tokens.isPending && <Loading />}
      {tokens.isLoadingError && <Failed error={tokens.error} again={() => void tokens.refetch()} />}
      {tokens.data?.tokens.length === 0 && <p className="text-ink-soft">No program has one.</p>}
      <ul className="grid gap-2">
        {tokens.data?.tokens.map((token) => (
          <TokenRow key={token.id} token={token} again={again} />
        ))}
      </ul>
    </section>
  );
}

const hookForm = z
  .object({
    name: z.string().trim().min(1, 'Whose it is').max(120),
    url: z.string().trim().pipe(webAddress),
    movement: z.boolean(),
    usedUp: z.boolean(),
  })
  .refine((h) => h.movement || h.usedUp, { path: ['usedUp'], message: 'One of the two at least' });

function NewHook({ again }: { readonly again: () => void }) {
  const form = useKeptForm('programs/hook', hookForm, { name: '', url: '', movement: true, usedUp: true });
  const { register, handleSubmit, formState } = form;
  const { errors } = formState;
  const add = useCommand(api.programs.addHook, { onDone: again });
  return (
    <form
      aria-label="An address to call"
      className="grid gap-3"
      onSubmit={(event) =>
        void handleSubmit(({ movement, usedUp, ...said }) =>
          add.send(
            {
              body: {
                ...said,
                topics: [...(movement ? ['movement' as const] : []), ...(usedUp ? ['used-up' as const] : [])],
              },
            },
            form.clear,
          ),
        )(event)
      }
    >
      <StillHere draft={form.kept} />
      <div className="grid items-start gap-3 sm:grid-cols-[1fr_2fr]">
        <Field label="Whose" error={errors.name?.message} {...register('name')} />
        <Field label="Address" inputMode="url" autoComplete="off" error={errors.url?.message} {...register('url')} />
      </div>
      <div className="flex flex-wrap gap-x-6">
        <Check label={topicNames.movement} {...register('movement')} />
        <Check label={topicNames['used-up']} {...register('usedUp')} />
      </div>
      {errors.usedUp !== undefined && <p className="text-[14px] text-alarm">{errors.usedUp.message}</p>}
      {add.error !== null && <Notice tone="alarm">{add.error.message}</Notice>}
      <Button type="submit" variant="strong" className="h-11 justify-self-start" disabled={add.pending}>
        Call it
      </Button>
      {add.answer !== undefined && (
        <Once
          says={`The secret that signs the calls to ${add.answer.made.name}.`}
          secret={add.answer.secret}
          onSeen={add.reset}
        />
      )}
    </form>
  );
}

function HookRow({ hook, again }: { readonly hook: Hook; readonly again: () => void }) {
  const end = useCommand(api.programs.endHook, { onDone: again });
  const attempt = useCommand(api.programs.tryHook);
  const { answer } = attempt;
  return (
    <li className="grid gap-2 rounded-plate border border-line bg-white px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <span className="min-w-44 flex-1">
          <strong className="font-head text-lg break-words">{hook.name}</strong>
          <span className="block text-[15px] break-all">{hook.url}</span>
          <span className="block text-[15px] text-ink-soft">
            {hook.topics.map((t) => topicNames[t]).join(' · ')} · by {hook.by}, {dayAndTime(hook.madeAt)}
          </span>
          <span
            className={`block text-[15px] ${hook.lastWhy === null && hook.givenUp === 0 ? 'text-ink-soft' : 'text-alarm'}`}
          >
            {callsWords(hook)}
          </span>
        </span>
        <Button
          disabled={attempt.pending}
          aria-label={`Try: ${hook.name}`}
          onClick={() => attempt.send({ params: { hookId: hook.id } })}
        >
          Try it
        </Button>
        <Button
          disabled={end.pending}
          aria-label={`Call no more: ${hook.name}`}
          onClick={() => end.send({ params: { hookId: hook.id } })}
        >
          Call no more
        </Button>
      </div>
      {answer !== undefined && (
        <Notice tone={answer.ok ? 'calm' : 'alarm'}>{answer.ok ? 'It took a call just now.' : answer.why}</Notice>
      )}
      {(attempt.error ?? end.error) !== null && <Notice tone="alarm">{(attempt.error ?? end.error)?.message}</Notice>}
    </li>
  );
}

function Hooks() {
  const client = useQueryClient();
  const hooks = useQuery({ queryKey: ['house', 'hooks'], queryFn: () => call(api.programs.hooks, {}) });
  const again = (): void => void client.invalidateQueries({ queryKey: ['house', 'hooks'] });
  return (
    <section aria-label="Calls" className="grid gap-3">
      <div>
        <h2 className="text-xl font-bold">Calls</h2>
        <p className="text-ink-soft">
          The house calls these by itself. Each call is signed by the Standard Webhooks scheme; what does not get
          through is tried again for two days and a half.
        </p>
      </div>
      <div className="rounded-plate border-[1.5px] border-ink bg-white p-4">
        <NewHook again={again} />
      </div>
      {hooks.isPending && <Loading />}
      {hooks.isLoadingError && <Failed error={hooks.error} again={() => void hooks.refetch()} />}
      {hooks.data?.hooks.length === 0 && <p className="text-ink-soft">Nobody is called.</p>}
      <ul className="grid gap-2">
        {hooks.data?.hooks.map((hook) => (
          <HookRow key={hook.id} hook={hook} again={again} />
        ))}
      </ul>
    </section>
  );
}

function ProgramsPage() {
  const hooks = useMay('programs.hooks');
  return (
    <div className="flex flex-1 flex-col">
      <HouseHead />
      <div className="mx-auto grid w-full max-w-[1000px] content-start gap-8 p-5">
        <Tokens />
        {hooks && <Hooks />}
      </div>
    </div>
  );
}

export default function Programs() {
  return (
    <ForChefs>
      <ProgramsPage />
    </ForChefs>
  );
}

import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { XMLParser } from 'fast-xml-parser';
import { closeDatabase } from '../../server/db/database';
import { openStack, type Stack } from './stack';

/** The CRM stand-in as a service that any OData client may call. */
const root = () => `${process.env.CRM_URL}/odata`;
let stack: Stack;
let token: string;

async function newToken(): Promise<string> {
  const form = new URLSearchParams({
    grant_type: 'client_credentials',
    client_id: 'lumbix',
    client_secret: 'local-only',
  });
  const response = await fetch(`${process.env.CRM_URL}/oauth/token`, { method: 'POST', body: form });
  return ((await response.json()) as { access_token: string }).access_token;
}

beforeAll(async () => {
  stack = await openStack();
  token = await newToken();
});
afterEach(() => stack.clearFaults());
afterAll(async () => {
  await closeDatabase();
  await stack.close();
});

type Entity = Record<string, unknown>;
interface Page {
  value: Entity[];
  '@odata.count'?: number;
  '@odata.nextLink'?: string;
  '@odata.deltaLink'?: string;
}
const ask = (path: string, init: RequestInit = {}) =>
  fetch(path.startsWith('http') ? path : `${root()}/${path}`, {
    ...init,
    headers: { Authorization: `Bearer ${token}`, ...(init.headers as Record<string, string>) },
  });
const json = async <T = Page>(path: string, init?: RequestInit) => (await (await ask(path, init)).json()) as T;
const error = async (response: Response) => {
  const { error: told } = (await response.json()) as { error: { message: string } };
  return [response.status, told.message];
};
const ids = ({ value }: Page) => value.map(({ id }) => id);

describe('the service', () => {
  it('gives tokens to whom it knows, and nothing without one', async () => {
    const form = new URLSearchParams({ client_id: 'lumbix', client_secret: 'wrong' });
    expect((await fetch(`${process.env.CRM_URL}/oauth/token`, { method: 'POST', body: form })).status).toBe(401);
    expect((await fetch(`${root()}/Deals`)).status).toBe(401);
    expect((await fetch(`${root()}/Deals`, { headers: { Authorization: 'Bearer made-up' } })).status).toBe(401);
  });

  it('describes itself in CSDL: every set has a type, every relation leads to one', async () => {
    const xml = await (await ask('$metadata')).text();
    const parsed = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '@' }).parse(xml) as {
      'edmx:Edmx': {
        'edmx:DataServices': { Schema: { EntityType: Entity[]; EntityContainer: { EntitySet: Entity[] } } };
      };
    };
    const { EntityType, EntityContainer } = parsed['edmx:Edmx']['edmx:DataServices'].Schema;
    const types = EntityType.map((each) => each['@Name']);
    for (const set of EntityContainer.EntitySet)
      expect(types).toContain(String(set['@EntityType']).replace('Crm.', ''));
    for (const [, target] of xml.matchAll(/NavigationProperty Name="\w+" Type="(?:Collection\()?Crm\.(\w+)/g))
      expect(types).toContain(target);
  });

  it('says what it does not know in an OData error', async () => {
    expect(await error(await ask('Ships'))).toEqual([400, 'There is no Ships.']);
    expect((await ask("Deals('none')")).status).toBe(404);
    expect((await ask('Deals?$filter=name eq')).status).toBe(400);
    expect((await ask('Deals?$top=many')).status).toBe(400);
    expect((await ask('Deals?$apply=x')).status).toBe(400);
    expect((await ask("Deals('D-1188')/ships")).status).toBe(404);
  });
});

describe('a collection', () => {
  it('comes in pages with whole links, filtered, sorted and counted', async () => {
    const seen: unknown[] = [];
    let link: string | undefined = `${root()}/Deals?$count=true&$select=name&$orderby=amount desc,id`;
    for (let pages = 0; link; pages++) {
      const page: Page = await json(link);
      seen.push(...ids(page));
      link = page['@odata.nextLink'];
      if (link) expect(link).toMatch(/^http:\/\/127\.0\.0\.1:\d+\/odata\/Deals\?/);
      expect(pages).toBeLessThan(5);
    }
    expect(new Set(seen).size).toBe(81);
    const won = await json("Deals?$filter=stage eq 'Won' and amount gt 1000&$count=true&$top=2");
    expect(won.value).toHaveLength(2);
    expect(won['@odata.count']).toBeGreaterThan(2);
  });

  it('expands relations, long ones page by page', async () => {
    const deal = await json<Entity>("Deals('D-1203')?$select=name&$expand=account($select=name),lines($select=name)");
    expect((deal.account as Entity).name).toBe('Kestrel Hill Botanic Garden');
    expect(deal.lines).toHaveLength(100);
    const rest = await json(`${root()}/${String(deal['lines@odata.nextLink'])}`);
    expect(rest.value).toHaveLength(40);
  });

  it('is asked for in a body where an address is too short', async () => {
    const many = Array.from({ length: 2_000 }, (_, at) => `'none-${at}'`);
    const body = `$select=name&$filter=${encodeURIComponent(`id in (${many.join(',')},'D-1188')`)}`;
    const page = await json('Deals/$query', { method: 'POST', headers: { 'Content-Type': 'text/plain' }, body });
    expect(ids(page)).toEqual(['D-1188']);
  });
});

describe('changes', () => {
  const tracked = { headers: { Prefer: 'odata.track-changes,odata.maxpagesize=30' } };
  const all = async (link: string, init?: RequestInit) => {
    const value: Entity[] = [];
    for (let next: string | undefined = link; next;) {
      const page: Page = await json(next, init);
      value.push(...page.value);
      next = page['@odata.nextLink'];
      if (!next) return { value, link: page['@odata.deltaLink']! };
    }
    throw new Error('The pages have no end.');
  };

  it('begin with everything, once, then tell what changed and what is gone', async () => {
    const first = await all('Deals?$select=name&$expand=account($select=name)', tracked);
    expect(new Set(first.value.map(({ id }) => id)).size).toBe(81);
    expect((await all(first.link)).value).toEqual([]);
    await stack.changeInCrm('Deals', 'D-1188', { name: 'Renamed' });
    await stack.changeInCrm('Deals', 'D-1188', { name: 'Renamed again' });
    await stack.deleteInCrm('Deals', 'D-1206');
    const second = await all(first.link);
    expect(second.value).toMatchObject([
      { id: 'D-1188', name: 'Renamed again' },
      { id: 'D-1206', '@removed': { reason: 'deleted' } },
    ]);
    expect((await all(second.link)).value).toEqual([]);
    // The older link still tells the same.
    expect((await all(first.link)).value).toHaveLength(2);
  });

  it('have links that are too old at some time', async () => {
    expect((await ask('Deals?$deltatoken=ancient')).status).toBe(410);
  });
});

describe('a write', () => {
  const patch = (version: string | undefined, body: object) =>
    ask("Deals('D-1189')", {
      method: 'PATCH',
      headers: { 'Content-Type': 'application/json', ...(version && { 'If-Match': version }) },
      body: JSON.stringify(body),
    });

  it('names the version it changes, and is refused where that is another one by now', async () => {
    expect((await patch(undefined, { owner: 'x' })).status).toBe(428);
    const { '@odata.etag': version } = await json<Entity>("Deals('D-1189')");
    expect((await patch(String(version), { owner: 'Nell Orrin' })).status).toBe(204);
    expect((await patch(String(version), { owner: 'Somebody' })).status).toBe(412);
    expect((await json<Entity>("Deals('D-1189')")).owner).toBe('Nell Orrin');
  });

  it.each([
    [{ id: 'x' }, 422],
    [{ nothing: 1 }, 400],
    [{ stage: 'Dreaming' }, 422],
    [{ amount: 'much' }, 422],
    [{ closes_on: '2026-02-30' }, 422],
    [{ name: null }, 422],
    [{ site_works: ['moat'] }, 422],
  ])('of %o is refused with %i', async (body, status) => {
    expect((await patch('*', body)).status).toBe(status);
  });
});

describe('a file', () => {
  const attach = (key: string | undefined, name = 'Quote.pdf', content = '%PDF-1') =>
    ask("Deals('D-1190')/attachments", {
      method: 'POST',
      headers: {
        'Content-Type': 'application/pdf',
        Slug: encodeURIComponent(name),
        ...(key && { 'Repeatability-Request-ID': key }),
      },
      body: content,
    });

  it('is kept once for each repeatability id, however many requests come at once', async () => {
    const answers = await Promise.all(Array.from({ length: 5 }, () => attach('one')));
    const kept = await Promise.all(answers.map((each) => each.json() as Promise<Entity>));
    expect(new Set(kept.map(({ id }) => id)).size).toBe(1);
    expect(answers.every((each) => each.headers.get('Repeatability-Result') === 'accepted')).toBe(true);
    await attach('two');
    const { value } = await json("Deals('D-1190')/attachments");
    expect(value).toHaveLength(2);
    const content = await ask(`Attachments('${String(value[0]!.id)}')/$value`);
    expect(await content.text()).toBe('%PDF-1');
  });

  it('is given another content in its place, and keeps the earlier one', async () => {
    const { id } = (await (await attach('four', 'Plan.pdf', 'first')).json()) as Entity;
    const put = (
      file: string,
      key: string,
      headers = { 'Content-Disposition': "attachment; filename*=UTF-8''Plan%20B.pdf" },
    ) =>
      ask(`Deals('D-1190')/attachments('${file}')/$value`, {
        method: 'PUT',
        headers: { 'Content-Type': 'application/pdf', 'Repeatability-Request-ID': key, ...headers },
        body: 'second',
      });
    expect((await put(String(id), 'five', {} as never)).status).toBe(400);
    const answers = await Promise.all([put(String(id), 'six'), put(String(id), 'six')]);
    for (const answer of answers)
      expect(await answer.json()).toMatchObject({ id, name: 'Plan B.pdf', revision: 2, size: 6 });
    expect((await json(`Attachments('${String(id)}')/revisions`)).value).toMatchObject([
      { revision: 1, name: 'Plan.pdf', size: 5 },
    ]);
    const content = async (path: string) => (await ask(`Attachments('${String(id)}')${path}/$value`)).text();
    expect([await content(''), await content('/revisions(1)')]).toEqual(['second', 'first']);
    expect((await put(randomUUID(), 'seven')).status).toBe(404);
    expect(
      (
        await ask(`Deals('D-1191')/attachments('${String(id)}')/$value`, {
          method: 'PUT',
          body: 'x',
          headers: { 'Content-Disposition': "filename*=UTF-8''x" },
        })
      ).status,
    ).toBe(404);
  });

  it('stands on any record that takes files, and on that one alone', async () => {
    const on = (path: string) =>
      ask(`${path}/attachments`, { method: 'POST', headers: { Slug: 'A.pdf' }, body: '%PDF-1' });
    expect((await on("Accounts('A-101')")).status).toBe(201);
    expect((await json("Accounts('A-101')/attachments")).value).toMatchObject([{ name: 'A.pdf', record_id: 'A-101' }]);
    expect((await json("Contacts('C-201')/attachments")).value).toEqual([]);
    expect((await on("Products('P-1')")).status).toBe(404);
  });

  it('needs a name and a record', async () => {
    expect((await attach('three', ' ')).status).toBe(400);
    expect((await ask("Deals('none')/attachments", { method: 'POST', body: 'x' })).status).toBe(404);
  });
});

describe('faults', () => {
  it('befall what they are for, as often as they say, with or without an OData error', async () => {
    await stack.fault({ on: 'read', kind: 'status', status: 503, times: 2 });
    await stack.fault({ on: 'patch', kind: 'status', status: 423, plain: true, times: 1 });
    expect(await error(await ask('Deals'))).toEqual([503, 'The CRM is out of order.']);
    expect((await ask('Deals')).status).toBe(503);
    expect((await ask('Deals')).status).toBe(200);
    const write = await ask("Deals('D-1190')", { method: 'PATCH', body: '{}' });
    expect([write.status, await write.text()]).toEqual([423, expect.stringContaining('Maintenance')]);
  });

  it.each(['drop-before', 'drop-after', 'cut-off'] as const)('%s breaks the connection', async (kind) => {
    await stack.fault({ on: 'read', kind, times: 1 });
    await expect(ask('Deals').then((response) => response.text())).rejects.toThrow();
    expect((await ask('Deals')).status).toBe(200);
  });

  it('stall falls silent, slow waits, and a page has status 200', async () => {
    await stack.fault({ on: 'read', kind: 'stall', times: 1 });
    const stalled = ask('Deals', { signal: AbortSignal.timeout(400) }).then((response) => response.text());
    await expect(stalled).rejects.toThrow();
    await stack.fault({ on: 'read', kind: 'slow', delay: 300, times: 1 });
    const began = Date.now();
    expect((await ask('Deals')).status).toBe(200);
    expect(Date.now() - began).toBeGreaterThanOrEqual(290);
    await stack.fault({ on: 'read', kind: 'page', times: 1 });
    const page = await ask('Deals');
    expect([page.status, page.headers.get('content-type')]).toEqual([200, 'text/html']);
  });
});

describe('its pages', () => {
  const page = (path: string, init?: RequestInit) =>
    fetch(`${process.env.CRM_URL}${path}`, { redirect: 'manual', ...init });

  it('show deals, lead to Lumbix, and change a field by hand', async () => {
    expect(await (await page('/')).text()).toContain('Boiler house renewal');
    expect(await (await page('/deals/D-1193')).text()).toContain('Open in Lumbix');
    const change = (value: string) =>
      page('/deals/D-1193/change', { method: 'POST', body: new URLSearchParams({ property: 'stage', value }) });
    expect((await change('Won')).status).toBe(303);
    expect((await change('<b>Dreaming</b>')).status).toBe(422);
    expect((await json<Entity>("Deals('D-1193')")).stage).toBe('Won');
    expect((await page('/deals/none')).status).toBe(404);
  });

  it('show any record with those that belong to it, each with the way to Lumbix', async () => {
    const account = await (await page('/accounts/A-101')).text();
    expect(account).toContain('/records/Account/A-101">Open in Lumbix');
    for (const path of ['/contacts/C-201', '/deals/D-1187']) expect(account).toContain(`href="${path}"`);
    const contact = await (await page('/contacts/C-201')).text();
    expect(contact).toContain('/records/Contact/C-201">Open in Lumbix');
    expect(contact).toContain('Odile Penhallow');
  });

  it('change a line where its deal is shown, and go back to that', async () => {
    const form = new URLSearchParams({ property: 'quantity', value: '13' });
    const answer = await page('/lineitems/D-1187-1/change', { method: 'POST', body: form });
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/deals/D-1187']);
    expect((await json<Entity>("LineItems('D-1187-1')")).quantity).toBe('13');
  });

  it('name a contact as its names are now', async () => {
    await page('/contacts/C-202/change', {
      method: 'POST',
      body: new URLSearchParams({ property: 'family_name', value: 'Ashdown-Vane' }),
    });
    expect((await json<Entity>("Contacts('C-202')")).name).toBe('Corin Ashdown-Vane');
  });

  it('show nothing that somebody typed as their own', async () => {
    await stack.changeInCrm('Deals', 'D-1196', { name: '<script>alert(1)</script>' });
    const shown = await (await page('/deals/D-1196')).text();
    expect(shown).not.toContain('<script>alert');
    expect(shown).toContain('&#60;script&#62;alert');
  });
});

describe('a field that is renamed', () => {
  it('is told by the metadata and read by its new name, in all records, even after a restart', async () => {
    const before = await json<Entity>("Deals('D-1203')?$select=site_address");
    await stack.renameInCrm('Deal', 'site_address', 'place_of_work');
    await stack.stopCrm();
    await stack.startCrm();
    token = await newToken();
    expect(await (await ask('$metadata')).text()).toContain('Property Name="place_of_work"');
    expect((await json<Entity>("Deals('D-1203')?$select=place_of_work")).place_of_work).toBe(before.site_address);
    expect((await ask("Deals('D-1203')?$select=site_address")).status).toBe(400);
    await stack.renameInCrm('Deal', 'place_of_work', 'site_address');
    expect(await json<Entity>("Deals('D-1203')?$select=site_address")).toMatchObject({
      site_address: before.site_address,
    });
  });

  it('keeps a name that nobody has', async () => {
    const body = new URLSearchParams({ type: 'Deal', from: 'name', to: 'stage' });
    const answer = await fetch(`${process.env.CRM_URL}/fields`, { method: 'POST', body });
    expect(answer.status).toBe(422);
    expect(await answer.text()).toContain('Deal has stage already.');
  });
});

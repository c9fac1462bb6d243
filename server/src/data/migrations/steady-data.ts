import { createHash } from 'node:crypto'
import { Migration } from '@mikro-orm/migrations'
import { mended } from './mended'

/** Columns in which somebody’s text stands, by table; JSON ones are looked through. */
const texts: Record<string, { key: string; json: string[]; plain: string[] }> = {
  job: { key: 'id', json: ['brief'], plain: [] },
  draft: { key: 'job', json: ['installation'], plain: [] },
  revision: { key: 'id', json: ['installation'], plain: ['name'] },
  finding: { key: 'number', json: ['asking', 'observable'], plain: ['note'] },
  photo: { key: 'id', json: [], plain: ['caption'] },
  own_type: { key: 'id', json: ['definition'], plain: [] },
  entry: { key: 'number', json: ['entry'], plain: ['author'] },
}

/**
 * Jobs and types that can be in the bin, devices that may come in, pictures by themselves, a name for this line of data; and no
 * control character in any text.
 */
export class SteadyData extends Migration {
  override async up(): Promise<void> {
    for (const statement of [
      'create table setting (name text not null primary key, value text not null)',
      'alter table job add column deleted_at datetime null',
      "alter table job add column sought text not null default ''",
      // With what is looked for in them: finding a job reads the index and not every brief.
      'create index job_listed on job (deleted_at, updated_at desc, id, sought)',
      'create index job_of_status on job (deleted_at, status, updated_at desc, id, sought)',
      'alter table entry add column device text null',
      'alter table own_type add column deleted_at datetime null',
      `create table device (
        id text not null primary key, name text not null, paired_at datetime not null, seen_at datetime not null,
        revoked_at datetime null)`,
      `create table picture (
        photo text not null primary key references photo (id) on delete cascade, image blob not null, thumbnail blob null)`,
      "alter table photo add column type text not null default 'image/jpeg'",
      'alter table photo add column bytes integer not null default 0',
      "alter table photo add column digest text not null default ''",
    ])
      await this.execute(statement)
    await this.movePictures()
    await this.execute('alter table photo drop column image')
    for (const [table, columns] of Object.entries(texts)) await this.mend(table, columns)
    await this.execute(`update job set sought = (brief ->> 'site') || char(10) || (brief ->> 'symptom')`)
  }

  private async movePictures(): Promise<void> {
    const ids = (await this.execute('select id from photo')) as unknown as { id: string }[]
    for (const { id } of ids) {
      const [{ address }] = (await this.execute('select image as address from photo where id = ?', [
        id,
      ])) as unknown as {
        address: string
      }[]
      const [, type, base64] = /^data:([\w/+.-]+);base64,(.*)$/s.exec(address)!
      const image = Buffer.from(base64, 'base64')
      const digest = createHash('sha256').update(image).digest('hex')
      await this.execute('insert into picture (photo, image) values (?, ?)', [id, image])
      await this.execute('update photo set type = ?, bytes = ?, digest = ? where id = ?', [
        type,
        image.length,
        digest,
        id,
      ])
    }
  }

  private async mend(table: string, { key, json, plain }: (typeof texts)[string]): Promise<void> {
    const keys = (await this.execute(`select ${key} as k from ${table}`)) as unknown as { k: string | number }[]
    for (const { k } of keys) {
      const [row] = (await this.execute(`select * from ${table} where ${key} = ?`, [k])) as unknown as Record<
        string,
        string
      >[]
      for (const column of [...json, ...plain]) {
        const was = row[column]
        const now = json.includes(column) ? JSON.stringify(mended(JSON.parse(was))) : String(mended(was))
        if (now !== was) await this.execute(`update ${table} set ${column} = ? where ${key} = ?`, [now, k])
      }
    }
  }
}

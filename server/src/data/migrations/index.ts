import { Migration } from '@mikro-orm/migrations'
import { SteadyData } from './steady-data'
import { Visits } from './visits'

/** Jobs with their one draft, their revisions and their findings. */
class FirstTables extends Migration {
  override up(): void {
    this.addSql(`create table job (
      id text not null primary key, brief json not null, status text not null check (status in ('open', 'closed')),
      version integer not null, created_at datetime not null, updated_at datetime not null)`)
    this.addSql(`create table draft (
      job text not null primary key references job (id) on delete cascade, installation json not null,
      version integer not null, updated_at datetime not null)`)
    this.addSql(`create table revision (
      id text not null primary key, job text not null references job (id) on delete cascade, kind text not null,
      name text not null, installation json not null, created_at datetime not null)`)
    this.addSql(`create index revision_job on revision (job)`)
    this.addSql(`create table finding (
      number integer primary key autoincrement, id text not null unique,
      job text not null references job (id) on delete cascade, asking json not null, observable json not null,
      result text not null, note text not null, at datetime not null)`)
    this.addSql(`create index finding_job on finding (job)`)
  }

  override down(): void {
    for (const table of ['finding', 'revision', 'draft', 'job']) this.addSql(`drop table ${table}`)
  }
}

/** Device types that users have made. */
class OwnTypes extends Migration {
  override up(): void {
    this.addSql(`create table own_type (
      id text not null primary key, definition json not null, version integer not null, updated_at datetime not null)`)
  }

  override down(): void {
    this.addSql('drop table own_type')
  }
}

/** Photos pinned to revisions. */
class Photos extends Migration {
  override up(): void {
    this.addSql(`create table photo (
      id text not null primary key, job text not null references job (id) on delete cascade,
      revision text not null references revision (id) on delete cascade, caption text not null, image text not null,
      created_at datetime not null)`)
    this.addSql(`create index photo_job on photo (job)`)
  }

  override down(): void {
    this.addSql('drop table photo')
  }
}

/** What is recorded of jobs, entry by entry. */
class Log extends Migration {
  override up(): void {
    this.addSql(`create table entry (
      number integer primary key autoincrement, id text not null unique,
      job text not null references job (id) on delete cascade, author text not null, visit text not null,
      at datetime not null, entry json not null, received_at datetime not null)`)
    this.addSql(`create index entry_job on entry (job, number)`)
  }

  override down(): void {
    this.addSql('drop table entry')
  }
}

/** What is recorded of a job's hunt, as its log makes it. */
class Hunts extends Migration {
  override up(): void {
    this.addSql(`create table hunt (
      job text not null primary key references job (id) on delete cascade, record json not null)`)
  }

  override down(): void {
    this.addSql('drop table hunt')
  }
}

/** Every migration in order; the names stay, since they are kept in the database. */
export const migrations = [
  { name: '2026-11-24-first-tables', class: FirstTables },
  { name: '2026-11-25-own-types', class: OwnTypes },
  { name: '2026-11-26-photos', class: Photos },
  { name: '2026-11-26b-log', class: Log },
  { name: '2026-11-26c-steady-data', class: SteadyData },
  { name: '2026-11-27-hunts', class: Hunts },
  { name: '2026-11-27b-visits', class: Visits },
]

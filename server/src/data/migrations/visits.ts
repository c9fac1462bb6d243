import { Migration } from '@mikro-orm/migrations'

/**
 * Visits with what is recorded of them; photos that belong to no revision; how far a job is, when it is due, and everything that is
 * written of it in an index of words.
 */
export class Visits extends Migration {
  override up(): void {
    for (const statement of [
      `create table site_record (
        job text not null primary key references job (id) on delete cascade, record json not null)`,
      // Temporary measures were the hunt's; what had ended by then was forgotten there.
      `insert into site_record (job, record)
        select job, json_object('visits', json('[]'), 'disturbed', json('[]'), 'measures', json_extract(record, '$.measures'),
          'items', json('[]'), 'parts', json('[]'), 'told', json('[]'), 'followUps', json('[]'))
        from hunt where json_array_length(record, '$.measures') > 0`,
      `update hunt set record = json_remove(record, '$.measures')`,

      `create table photo_anew (
        id text not null primary key, job text not null references job (id) on delete cascade,
        revision text null references revision (id) on delete cascade, visit text null, item text null, spot json null,
        caption text not null, type text not null, bytes integer not null, digest text not null, created_at datetime not null)`,
      `insert into photo_anew (id, job, revision, caption, type, bytes, digest, created_at)
        select id, job, revision, caption, type, bytes, digest, created_at from photo`,
      `create table picture_anew (
        photo text not null primary key references photo_anew (id) on delete cascade, image blob not null, thumbnail blob null)`,
      `insert into picture_anew select photo, image, thumbnail from picture`,
      // The pictures first: taking their photos away would take them along.
      'drop table picture',
      'drop table photo',
      'alter table photo_anew rename to photo',
      'alter table picture_anew rename to picture',
      'create index photo_job on photo (job)',

      "alter table job add column standing json not null default '{}'",
      'alter table job add column due text null',
      'drop index job_listed',
      'drop index job_of_status',
      'alter table job drop column sought',
      'create index job_listed on job (deleted_at, status, due, updated_at desc, id)',

      `create table job_text (
        number integer primary key, job text not null unique references job (id) on delete cascade, site text not null,
        wiring text not null, body text not null)`,
      `create virtual table job_words using fts5(
        site, wiring, body, content='job_text', content_rowid='number', tokenize='unicode61 remove_diacritics 2', prefix='2 3')`,
      `create trigger job_text_put after insert on job_text begin
        insert into job_words (rowid, site, wiring, body) values (new.number, new.site, new.wiring, new.body);
      end`,
      `create trigger job_text_gone after delete on job_text begin
        insert into job_words (job_words, rowid, site, wiring, body)
          values ('delete', old.number, old.site, old.wiring, old.body);
      end`,
      `create trigger job_text_anew after update on job_text begin
        insert into job_words (job_words, rowid, site, wiring, body)
          values ('delete', old.number, old.site, old.wiring, old.body);
        insert into job_words (rowid, site, wiring, body) values (new.number, new.site, new.wiring, new.body);
      end`,
    ])
      this.addSql(statement)
  }
}

import { Spotted } from '../visit/spotted'
import type { Block } from './report'
import { strokePath } from './stroke-path'

/** A report on the page, as it is printed. */
export function ReportView({ blocks }: { blocks: readonly Block[] }) {
  return (
    <article className="report sheet">
      {blocks.map((block, i) => (
        <BlockView key={i} block={block} />
      ))}
    </article>
  )
}

function BlockView({ block }: { block: Block }) {
  switch (block.is) {
    case 'title':
      return (
        <header>
          <h2 className="title">{block.text}</h2>
          {block.under && <p className="quiet">{block.under}</p>}
        </header>
      )
    case 'heading':
      return <h3>{block.text}</h3>
    case 'text':
      return <p className={block.strong ? 'strong' : ''}>{block.text}</p>
    case 'list':
      return (
        <ul>
          {block.items.map((item, i) => (
            <li key={i}>{item}</li>
          ))}
        </ul>
      )
    case 'table':
      return (
        <div className="report-table">
          <table className="plain">
            <thead>
              <tr>
                {block.head.map((text) => (
                  <th key={text} scope="col">
                    {text}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {block.rows.map((row, i) => (
                <tr key={i}>
                  {row.map((cell, k) => (
                    <td key={k}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )
    case 'photos':
      return (
        <div className="report-photos">
          {block.photos.map(({ id, image, caption, spot }) => (
            <figure key={id}>
              <Spotted src={image} caption={caption} spot={spot} />
              <figcaption>{caption}</figcaption>
            </figure>
          ))}
        </div>
      )
    case 'caution':
      return (
        <section className="caution">
          <h3>{block.title}</h3>
          <ul>
            {block.lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </section>
      )
    case 'signature':
      return (
        <figure className="signature">
          <svg viewBox="0 0 1000 320" role="img" aria-label={`Signature of ${block.name}`}>
            <path d={strokePath(block.strokes)} />
          </svg>
          <figcaption>
            {block.name}, {block.day}
          </figcaption>
        </figure>
      )
  }
}

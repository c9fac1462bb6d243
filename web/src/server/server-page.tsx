import { TriangleAlert } from 'lucide-react'
import { useServer } from '../api/hooks'
import { Failed, Loading } from '../shell/notes'
import { Backups } from './backups'
import { DataCheck } from './data-check'
import { Devices } from './devices'

/** Who may come in, and that nothing is lost: the server as its owner manages it, at the machine it runs on. */
export function ServerPage() {
  const { data: server, error, isPending, refetch } = useServer()
  if (isPending) return <Loading what="how the server stands" />
  if (!server) return <Failed error={error} retry={() => void refetch()} />
  if (!server.host)
    return (
      <main className="page server-page">
        <h1>Server</h1>
        <div className="sheet server-part">
          <h2>This device is paired as “{server.device}”</h2>
          <p>Devices and backups are managed on the machine that Nobbet runs on.</p>
        </div>
      </main>
    )
  return (
    <main className="page server-page">
      <h1 className="m-0">Server</h1>
      <p className="meta m-0">
        Data in <code>{server.folder}</code>
      </p>
      <Devices addresses={server.addresses} encrypted={server.encrypted} />
      <Backups />
      <DataCheck />
      {!server.encrypted && server.addresses.length > 0 && (
        <p className="condition age">
          <TriangleAlert size={18} aria-hidden />
          <span>
            What goes over the network is not encrypted: anybody on it can read along. Give the server a key and a
            certificate, or keep to a network of your own.
          </span>
        </p>
      )}
    </main>
  )
}

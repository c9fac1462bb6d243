import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { toString as drawnCode } from 'qrcode'
import { useEffect, useState } from 'react'
import { Button } from 'react-bootstrap'
import type { Pairing } from '@nobbet/contract'
import { call, errorText } from '../api/client'
import { clockText, momentText } from '../drawing/dates'

/** Devices that are let in, and the code that lets in one more. */
export function Devices({ addresses, encrypted }: { addresses: readonly string[]; encrypted: boolean }) {
  const queries = useQueryClient()
  const pair = useMutation({ mutationFn: () => call('startPairing', { body: {} }) })
  const devices = useQuery({
    queryKey: ['devices'],
    queryFn: () => call('listDevices'),
    // Somebody is typing the code: the new device shows as soon as it is in.
    refetchInterval: pair.data ? 2000 : 30_000,
  })
  const revoke = useMutation({
    mutationFn: (device: string) => call('revokeDevice', { params: { device } }),
    onSettled: () => queries.invalidateQueries({ queryKey: ['devices'] }),
  })
  const stop = useMutation({ mutationFn: () => call('stopPairing'), onSettled: () => pair.reset() })
  // The code has let somebody in: it is good no more.
  const [newest] = [...(devices.data ?? [])].sort((x, y) => (x.pairedAt < y.pairedAt ? 1 : -1))
  const came = pair.data && newest && Date.parse(newest.pairedAt) >= pair.submittedAt ? newest : undefined
  const problem = pair.error ?? devices.error ?? revoke.error ?? stop.error
  return (
    <section className="sheet server-part" aria-label="Devices">
      <h2>Devices</h2>
      {addresses.length === 0 ? (
        <p>
          Only this machine is served. To let phones in, start Nobbet with <code>NOBBET_HOST=0.0.0.0</code>: paired
          devices then find it on your own network, and nobody else.
        </p>
      ) : (
        <>
          <p>
            On the network at{' '}
            {addresses.map((address) => (
              <code key={address}>{address}</code>
            ))}
            {encrypted ? ' Encrypted.' : ''}
          </p>
          {came && <p role="status">“{came.name}” is paired.</p>}
          {pair.data && !came ? (
            <PairingCode pairing={pair.data} stop={() => stop.mutate()} />
          ) : (
            <Button onClick={() => pair.mutate()} disabled={pair.isPending}>
              Pair a device
            </Button>
          )}
        </>
      )}
      {problem && (
        <p role="alert" className="text-danger">
          {errorText(problem)}
        </p>
      )}
      {devices.data && devices.data.length > 0 && (
        <ul className="server-list">
          {devices.data.map(({ id, name, pairedAt, seenAt }) => (
            <li key={id}>
              <strong>{name}</strong>
              <span className="meta">
                paired {momentText(pairedAt)} · last here {momentText(seenAt)}
              </span>
              <Button size="sm" variant="outline-danger" disabled={revoke.isPending} onClick={() => revoke.mutate(id)}>
                Shut out
              </Button>
            </li>
          ))}
        </ul>
      )}
      {devices.data?.length === 0 && addresses.length > 0 && <p className="meta mt-2">No device is paired.</p>}
    </section>
  )
}

function PairingCode({ pairing: { code, until, addresses }, stop }: { pairing: Pairing; stop: () => void }) {
  const [drawn, setDrawn] = useState<string>()
  const [over, setOver] = useState(false)
  const [address] = addresses
  useEffect(() => {
    void drawnCode(address, { type: 'svg', margin: 2, errorCorrectionLevel: 'M' }).then(setDrawn)
    const timer = setTimeout(() => setOver(true), Math.max(0, Date.parse(until) - Date.now()))
    return () => clearTimeout(timer)
  }, [address, until])
  return (
    <div className="pairing" role="status">
      {drawn && <img alt={`QR code of ${address}`} src={`data:image/svg+xml,${encodeURIComponent(drawn)}`} />}
      <div>
        <p className="pairing-code">
          {code.slice(0, 4)} {code.slice(4)}
        </p>
        <p>
          {over
            ? 'This code is not good any more.'
            : `Point the phone’s camera at the square, or open ${address.replace(/pair\?.*/, '')} and type the code. Good for one device, until ${clockText(until)}.`}
        </p>
        <Button variant="outline-dark" onClick={stop}>
          {over ? 'Done' : 'Stop pairing'}
        </Button>
      </div>
    </div>
  )
}

import { configure } from '@testing-library/dom'

// What a worker does in the browser is done on the spot here, and the machine may be busy with other tests.
configure({ asyncUtilTimeout: 60_000 })

import type { AddressInfo } from 'node:net'
import express from 'express'

// A child of the shed bench: one handler that sends the bytes it was given, from memory.
process.once('message', (base64: string) => {
  const body = Buffer.from(base64, 'base64')
  const app = express()
  app.get('/', (_request, response) => {
    response.type('json').send(body)
  })
  const server = app.listen(0, '127.0.0.1', () => {
    process.send?.((server.address() as AddressInfo).port)
  })
})

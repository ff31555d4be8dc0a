import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { databaseSettings, frontSettings } from './balancer.mjs';
import { certificateFor } from './certificate.mjs';
import { FILE, hostileRequests } from './hostile.mjs';
import { securityHeaders } from './security-headers.mjs';
import { supervise } from './supervise.mjs';
import { freePort, hashFiles, isAlive } from './system.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'logistra-scripts-'));
afterAll(() => rmSync(folder, { recursive: true }));

describe('security headers', () => {
  it('let only scripts with the nonce of this answer run, and nobody frame a page', () => {
    const headers = securityHeaders({ nonce: 'n0', tls: false });
    const policy = headers['content-security-policy'];
    expect(policy).toContain("script-src 'self' 'nonce-n0' 'strict-dynamic'");
    expect(policy).not.toMatch(/script-src[^;]*unsafe/);
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).toContain("object-src 'none'");
    expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'referrer-policy': 'same-origin' });
  });

  it('ask for TLS where there is TLS, and allow eval only while developing', () => {
    expect(securityHeaders({ nonce: 'n', tls: true })['content-security-policy']).toContain(
      'upgrade-insecure-requests',
    );
    expect(securityHeaders({ nonce: 'n', tls: false })['content-security-policy']).not.toContain('upgrade-insecure');
    expect(securityHeaders({ nonce: 'n', tls: true })['strict-transport-security']).toBe(
      'max-age=31536000; includeSubDomains',
    );
    expect(securityHeaders({ nonce: 'n', tls: false })).not.toHaveProperty('strict-transport-security');
    expect(securityHeaders({ nonce: 'n', tls: false, dev: true })['content-security-policy']).toContain('unsafe-eval');
  });
});

describe('a certificate', () => {
  const made = () => certificateFor('127.0.0.9', {}, folder);

  it('is made for the address, with a key that only its owner reads, and kept', () => {
    const { cert, key, fingerprint } = made();
    const certificate = new X509Certificate(readFileSync(cert));
    expect(certificate.checkIP('127.0.0.9')).toBe('127.0.0.9');
    expect(certificate.checkIP('127.0.0.8')).toBeUndefined();
    expect(certificate.fingerprint256).toBe(fingerprint);
    expect(statSync(key).mode & 0o077).toBe(0);
    expect(made().fingerprint).toBe(fingerprint);
  });

  it('of one’s own is used, and refused with what to do when it is none', () => {
    const { cert, key, fingerprint } = made();
    expect(certificateFor('192.0.2.1', { cert, key }, folder)).toEqual({ cert, key, fingerprint });
    expect(() => certificateFor('192.0.2.1', { cert }, folder)).toThrow('give both --cert FILE and --key FILE');
    expect(() => certificateFor('192.0.2.1', { cert: 'nowhere.pem', key }, folder)).toThrow('there is no file');
    const broken = path.join(folder, 'broken.pem');
    writeFileSync(broken, 'not a certificate');
    expect(() => certificateFor('192.0.2.1', { cert: broken, key }, folder)).toThrow('is no certificate in PEM');
  });
});

describe('a process that is watched over', () => {
  const script = (text: string) => {
    const file = path.join(folder, `${Math.random().toString(36).slice(2)}.mjs`);
    writeFileSync(file, text);
    return file;
  };

  it('that hangs is ended from outside, and started again; one that is only slow is let be', async () => {
    const pids: number[] = [];
    const hangs = `process.on('message', () => process.send('here')); process.send('ready');
      setTimeout(() => { const until = Date.now() + Number(process.env.HANG); while (Date.now() < until); }, 200);
      setInterval(() => {}, 1000);`;
    const watched = (HANG: string) =>
      supervise('A test process', [script(hangs)], { HANG }, { onPid: (pid: number) => pids.push(pid), hangs: 1500 });
    const slow = await watched('700');
    await new Promise((resolve) => setTimeout(resolve, 3000));
    expect(pids).toHaveLength(1);
    await slow.stop();
    const hung = await watched('600000');
    await expect.poll(() => pids.length, { timeout: 8000 }).toBeGreaterThanOrEqual(3);
    await hung.stop();
    expect(pids.some((pid) => isAlive(pid))).toBe(false);
  });

  it('is started again when it is killed, and ends when it is stopped', async () => {
    const pids: number[] = [];
    const one = await supervise(
      'A test process',
      [script("process.send('ready'); setInterval(() => {}, 1000);")],
      {},
      { onPid: (pid: number) => pids.push(pid) },
    );
    expect(isAlive(one.pid)).toBe(true);
    process.kill(one.pid, 'SIGKILL');
    await expect.poll(() => pids.length, { timeout: 5000 }).toBe(2);
    await expect.poll(() => isAlive(pids[1] ?? 0)).toBe(true);
    await one.stop();
    expect(pids.some((pid) => isAlive(pid))).toBe(false);
  });

  it('that cannot start says why, and is left alone', async () => {
    const failing = script("console.error('no room on the disk'); process.exit(3);");
    await expect(supervise('A test process', [failing], {})).rejects.toThrow('no room on the disk');
  });
});

describe('small things the commands rest on', () => {
  it('a port that is taken gives way to a free one', async () => {
    const { createServer } = await import('node:net');
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as { port: number };
    const other = await freePort(port);
    expect(other).toBeGreaterThan(0);
    expect(other).not.toBe(port);
    server.close();
  });

  it('a build is stale when a source changes, and not when a test does', () => {
    const source = path.join(folder, 'a.ts');
    const test = path.join(folder, 'a.test.ts');
    writeFileSync(source, '1');
    writeFileSync(test, '1');
    const before = hashFiles([source, test]);
    writeFileSync(test, '2');
    expect(hashFiles([source, test])).toBe(before);
    writeFileSync(source, '2');
    expect(hashFiles([source, test])).not.toBe(before);
  });

  it('the 1,000 hostile inputs are those that are kept', () => {
    const kept = JSON.parse(readFileSync(FILE, 'utf8'));
    expect(kept).toHaveLength(1000);
    expect(hostileRequests(20261125)).toEqual(kept);
    expect(hostileRequests(1)).not.toEqual(kept);
  });
});

describe('the balancer', () => {
  const settings = frontSettings({
    host: '127.0.0.1',
    port: 8443,
    pem: 'browsers.pem',
    webs: [
      { name: 'web-1', port: 3001 },
      { name: 'web-2', port: 3002 },
    ],
  });
  const way = databaseSettings({
    port: 3306,
    peers: [
      { name: 'web-1', port: 6001 },
      { name: 'web-2', port: 6002 },
    ],
    nodes: [
      { name: 'one', port: 4001, health: 5001 },
      { name: 'two', port: 4002, health: 5002 },
    ],
  });

  it('says who asks whatever they say themselves, and keeps figures and readiness inside', () => {
    expect(settings).toContain('http-request set-header X-Forwarded-For %[src]');
    expect(settings).toMatch(/deny deny_status 404 if \{ path \/readyz \/healthz \/metrics \}/);
    expect(settings).toContain('ssl-min-ver TLSv1.2');
  });

  it('sends nothing that changes anything a second time, and all servers to one node of the database', () => {
    expect(settings.match(/disable-l7-retry unless \{ method GET HEAD \}/g)).toHaveLength(2);
    expect(way).toMatch(
      /peer web-2 127\.0\.0\.1:6002[\s\S]*stick-table type integer size 1 peers programs\n {2}stick on int\(1\)/,
    );
    expect(way).toContain('server two 127.0.0.1:4002 check port 5002');
  });
});

import { knownLine, plainStop, type StopModule } from '../stopModule';

export const network: StopModule = {
  ...plainStop('network', [3, 6]),
  known: ({ machine, profile }) => [
    ...knownLine(
      'Administration page',
      profile?.admin
        ? `${profile.admin.scheme}, port ${profile.admin.port}${profile.admin.path === '/' ? '' : `, ${profile.admin.path}`}; the browser warns once about its own certificate`
        : null,
    ),
    ...knownLine('Address', 'fixed outside the router’s range, or a reservation on the router'),
    ...(machine?.networkPorts ?? []).flatMap((p) =>
      knownLine('Port', `${p.name}, ${p.kind}${p.speedMbps ? `, ${p.speedMbps} Mb/s` : ''}`),
    ),
  ],
  later: {
    headline: 'Where will it answer?',
    words:
      'This stop will plan addresses and check that nobody else has them; until then, note the address you gave it.',
  },
};

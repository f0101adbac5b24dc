import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import { chooseProfile } from '@zb/core/acts/box';
import { fitHeadline } from '@zb/core/fit/headline';
import { judgeAll } from '@zb/core/fit/judge';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Quiet } from '../../parts/Button';
import { Facts } from '../../parts/Facts';
import { NoProfiles } from '../../parts/NoProfiles';
import { Mark, VerdictMark, type MarkKind } from '../../parts/Marks';
import { stamp, useAct } from '../../storage/hooks';

const RULE_MARK: Record<string, { kind: MarkKind; word: string }> = {
  meets: { kind: 'yes', word: 'holds' },
  change: { kind: 'change', word: 'needs a change' },
  ask: { kind: 'ask', word: 'not known' },
  no: { kind: 'no', word: 'fails' },
};

function ChoosePage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  const [opened, setOpened] = useState<string | null>(null);
  if (!machine) {
    return (
      <BoxFrame context={context} stop="choose" headline="Choose a machine first">
        <p>
          Which system fits depends on the machine.{' '}
          <Link className="link" to={`/box/${box.id}/survey`}>
            Go to the survey
          </Link>
          .
        </p>
      </BoxFrame>
    );
  }
  const judged = judgeAll(bench, machine, box.purpose);
  return (
    <BoxFrame
      context={context}
      stop="choose"
      headline={fitHeadline(machine.name, box.purpose, judged, box.profileId)}
    >
      {judged.length === 0 ? (
        <NoProfiles />
      ) : (
        <div className="scroll-x">
          <table className="t rows">
            <thead>
              <tr>
                <th scope="col">System</th>
                <th scope="col">For</th>
                <th scope="col" style={{ width: 140 }}>
                  On {machine.name}
                </th>
                <th scope="col">Because</th>
                <th scope="col">
                  <span className="hidden-text">Choose</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {judged.map((j) => {
                const chosen = j.profileId === box.profileId;
                const isOpen = opened === j.profileId;
                return (
                  <Fragment key={j.profileId}>
                    <tr className={chosen ? 'here' : ''}>
                      <th scope="row">
                        {j.profile}
                        <span className="sub">
                          {j.of.release}, {j.of.channel}
                        </span>
                      </th>
                      <td>{j.of.purpose}</td>
                      <td>
                        <VerdictMark verdict={j.verdict} />
                      </td>
                      <td className="whole">
                        {j.binding[0]?.because}
                        {j.binding[0]?.repair && <span className="sub">{j.binding[0].repair}</span>}
                        {j.missing.length > 0 && (
                          <span className="sub">Missing: {j.missing.map((m) => m.ask).join(' ')}</span>
                        )}{' '}
                        <button
                          type="button"
                          className="link"
                          style={{ fontSize: 12 }}
                          aria-expanded={isOpen}
                          onClick={() => setOpened(isOpen ? null : j.profileId)}
                        >
                          {isOpen ? 'Close the reasons' : `All ${j.all.length} rules`}
                        </button>
                      </td>
                      <td style={{ textAlign: 'right' }}>
                        {chosen ? (
                          <b>chosen</b>
                        ) : (
                          <Quiet
                            paddingBlock="3px"
                            aria-label={`Choose ${j.profile}`}
                            onClick={() => void act(chooseProfile(box, j.of, j, stamp()))}
                          >
                            Choose
                          </Quiet>
                        )}
                      </td>
                    </tr>
                    {isOpen && (
                      <tr className={chosen ? 'here' : ''}>
                        <td colSpan={5} className="whole" style={{ paddingLeft: 20 }}>
                          <p style={{ marginBottom: 4 }}>
                            {j.of.about} Installer: {j.of.installer}.
                          </p>
                          <div
                            style={{
                              display: 'grid',
                              gridTemplateColumns: '110px 130px minmax(0,1fr)',
                              gap: '2px 10px',
                              alignItems: 'baseline',
                              fontSize: 13,
                            }}
                          >
                            {j.all.map((f) => (
                              <Fragment key={f.rule}>
                                <span className="soft">{f.rule}</span>
                                <Mark kind={RULE_MARK[f.outcome]?.kind ?? 'no'}>
                                  {RULE_MARK[f.outcome]?.word}
                                </Mark>
                                <span>
                                  {f.because} {f.repair}
                                </span>
                              </Fragment>
                            ))}
                          </div>
                          {j.missing.length > 0 && (
                            <div style={{ maxWidth: 520, marginTop: 8 }}>
                              <Facts machine={machine} only={j.missing.map((m) => m.fact)} />
                            </div>
                          )}
                        </td>
                      </tr>
                    )}
                  </Fragment>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
    </BoxFrame>
  );
}

export default withBox(ChoosePage);

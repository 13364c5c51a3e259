<?php

declare(strict_types=1);

namespace UpperPane\App\Data;

use Psr\Clock\ClockInterface;
use UpperPane\App\Layout\Design;
use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Reason;
use UpperPane\Core\Document\Refused;

/** Says with which headers a source is asked: they are sealed, and never shown again. */
final readonly class SourceHeaders
{
    private const MOST = 20;

    /** Who fetches says these by itself. */
    private const OWN = ['host', 'content-length', 'transfer-encoding', 'connection', 'accept-encoding', 'if-none-match', 'if-modified-since', 'range', 'cookie2', 'te', 'upgrade', 'expect'];

    public function __construct(
        private SourceStates $states,
        private Sealing $sealing,
        private Transaction $transaction,
        private Record $record,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param Node $node headers by name; none takes those away that there are
     * @return list<string> their names
     * @throws Refused
     */
    public function of(Design $design, Node $node): array
    {
        $headers = [];
        foreach ($node->members(self::MOST) as $name => $value) {
            if (preg_match('/^[A-Za-z0-9!#$%&\'*+.^_`|~-]{1,100}$/D', $name) !== 1 || in_array(strtolower($name), self::OWN, true)) {
                throw $value->refused(Reason::ValueRange, 'is no header that a source is asked with; Authorization is one.');
            }
            $text = $value->text(1, 4_000);
            if (preg_match('/[^\x20-\x7E]/', $text) === 1) {
                throw $value->refused(Reason::ValueRange, 'has a character that no header can have; ASCII in one line is right.');
            }
            $headers[$name] = $text;
        }
        $names = array_map(strval(...), array_keys($headers));
        $this->transaction->of(function () use ($design, $headers, $names): void {
            $this->states->seal($design->id, $headers === [] ? null : $this->sealing->sealed($headers), $names);
            $this->states->due($design->id, (int) $this->clock->now()->format('Uv'));
            $this->record->note(Did::Changed, $design->about(), ['what' => $names === [] ? 'asked without headers' : 'asked with ' . implode(', ', $names)]);
        });

        return $names;
    }
}

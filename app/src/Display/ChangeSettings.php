<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\App\Storage\Did;
use UpperPane\App\Storage\Record;
use UpperPane\App\Storage\Transaction;
use UpperPane\Core\Document\Node;
use UpperPane\Core\Document\Refused;
use UpperPane\Core\Setting\Settings;

/** One setting of a place or of a display is stated, stated otherwise, or left to what comes from above. */
final readonly class ChangeSettings
{
    public function __construct(private Places $places, private Displays $displays, private Transaction $transaction, private Record $record)
    {
    }

    /**
     * @param Place|SurveyedDisplay $at where it is stated
     * @param string $name of the setting, `vars.NAME` for one of the vars
     * @param Node $value null leaves it to what comes from above
     * @throws Refused where it cannot be that
     */
    public function of(Place|SurveyedDisplay $at, string $name, Node $value): void
    {
        $settings = Settings::stating($at->settings, $name, $value->value);
        try {
            Settings::fromNode(Node::root($settings), $at instanceof SurveyedDisplay);
        } catch (Refused $e) {
            throw $e->in('', $value->path);
        }
        $this->transaction->of(function () use ($at, $name, $value): void {
            $at = $at instanceof Place ? $this->places->locked($at->id) : $this->displays->locked($at->id);
            $before = $at->settings;
            $at->settings = Settings::stating($before, $name, $value->value);
            foreach ($at instanceof Place ? $this->displays->hangingIn($this->places->in($at)) : [$at] as $display) {
                $display->settle();
            }
            $was = Settings::stated($before, $name);
            if ($was !== $value->value) {
                $said = static fn (mixed $one): string => match (true) {
                    $one === null => 'inherited',
                    is_string($one) => $one,
                    default => json_encode($one, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES),
                };
                $this->record->note(Did::Changed, $at->about(), ['what' => sprintf('%s %s, before %s', strtr($name, ['.' => ' ']), $said($value->value), $said($was))]);
            }
        });
    }
}

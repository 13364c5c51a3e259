<?php

declare(strict_types=1);

namespace UpperPane\Core\Layout\Template;

use UpperPane\Core\Finding\Level;
use UpperPane\Core\Geometry\FitMode;
use UpperPane\Core\Layout\Kind\FitsContent;
use UpperPane\Core\Layout\Style\Styling;
use UpperPane\Core\Units\Percent;

/** A picture that is put into a slot. */
final readonly class PictureValue implements Value
{
    /** So much of it may be lost, or of its box be left. */
    private const MOST_LOST = 0.25;

    /** Larger than it is by less than this still looks sharp. */
    private const SHARP = 1.001;

    /** @param array<string, mixed> $media as it was read */
    public function __construct(private PictureSlot $slot, private string $element, private array $media)
    {
    }

    public function isEmpty(): bool
    {
        return false;
    }

    public function put(Draft $draft): void
    {
        $draft->change($this->element, ['media' => $this->media, 'crop' => null, 'rows' => null]);
    }

    public function checkNames(Styling $styling, string $path): void
    {
        $mark = $this->media['mark'] ?? null;
        is_string($mark) ? $styling->mark($mark, "$path/mark") : null;
    }

    public function findings(FilledView $view): iterable
    {
        $element = $view->element($this->element);
        foreach ($element instanceof FitsContent ? $element->fitted() : [] as $content) {
            [$lost, $bars] = [$content->fit->lost(), $content->fit->empty()];
            if ($content->mode !== FitMode::Fill && max($lost, $bars) > self::MOST_LOST) {
                yield $view->finding($this->slot, 'slot.shape', Level::Warning, sprintf(
                    '"%s" (%s px) %s in "%s" (%s px): it has another shape.',
                    $content->name,
                    $content->fit->source,
                    $lost >= $bars ? sprintf('loses %s of its area', Percent::of($lost)) : sprintf('leaves %s of the box empty', Percent::of($bars)),
                    $this->element,
                    $content->fit->box,
                ), ['lost' => round($lost, 4), 'bars' => round($bars, 4)]);
            }
            $scale = max($content->fit->scaleX, $content->fit->scaleY) * max(1.0, $view->displayScale());
            if (!$content->isDrawn && $scale > self::SHARP) {
                yield $view->finding(
                    $this->slot,
                    'slot.small',
                    Level::Warning,
                    sprintf('"%s" has %s px and is drawn at %s times its size in "%s": it will look soft.', $content->name, $content->fit->source, round($scale, 2), $this->element),
                    ['scale' => round($scale, 4)],
                );
            }
        }
    }
}

<?php

declare(strict_types=1);

namespace UpperPane\App\Display;

use UpperPane\App\Storage\Transaction;

/** "Four more like this": the same survey, numbered on. */
final readonly class CopyDisplay
{
    public function __construct(private AddDisplay $add, private Displays $displays, private Transaction $transaction)
    {
    }

    /** @return list<SurveyedDisplay> */
    public function of(SurveyedDisplay $like, int $count, Place $place): array
    {
        $name = $like->about()->name;
        $stem = (string) preg_replace('/\s+\d+$/', '', $name);
        $number = preg_match('/\s(\d{1,6})$/', $name, $m) === 1 ? (int) $m[1] : 1;
        $names = array_flip($this->displays->names($stem));

        return $this->transaction->of(function () use ($like, $count, $place, $name, $stem, $number, $names): array {
            $copies = [];
            while (count($copies) < $count) {
                $number++;
                if (!isset($names["$stem $number"])) {
                    /** @var array<string, mixed> $document */
                    $document = ['name' => "$stem $number"] + array_diff_key($like->document, ['id' => 1]);
                    $copies[] = $this->add->of($place, $document, like: $name);
                }
            }

            return $copies;
        });
    }
}

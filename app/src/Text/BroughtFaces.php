<?php

declare(strict_types=1);

namespace UpperPane\App\Text;

use Doctrine\ORM\EntityManagerInterface;
use UpperPane\App\Http\Problem;

/** Type faces that somebody brought in. */
final readonly class BroughtFaces
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<BroughtFace> */
    public function all(): array
    {
        return $this->entities->getRepository(BroughtFace::class)->findBy([], ['family' => 'ASC', 'weight' => 'ASC']);
    }

    public function one(string $id): BroughtFace
    {
        return $this->entities->find(BroughtFace::class, $id) ?? throw Problem::notFound('This face');
    }

    public function add(BroughtFace $face): void
    {
        $this->entities->persist($face);
    }
}

<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser\Support;

/** A test that works on a layout of its own, in a browser of its own. */
trait OnALayout
{
    private Chrome $desk;
    private Hands $hands;
    private string $layout;

    /**
     * @param \Closure(Chrome): array<string, mixed> $document without id and name
     * @param string $there what is seen once it stands
     */
    private function open(\Closure $document, string $there): void
    {
        $this->desk = Chrome::open();
        Desk::signIn($this->desk);
        $this->layout = (string) Desk::post($this->desk, 'layouts', ['name' => 'Own', 'document' => $document($this->desk)])['id'];
        $this->desk->go(Desk::url("/layouts/$this->layout"));
        $this->desk->see($there);
        $this->hands = new Hands($this->desk);
    }

    protected function tearDown(): void
    {
        Desk::post($this->desk, "layouts/$this->layout", [], 'DELETE');
        $this->desk->close();
    }
}

<?php

declare(strict_types=1);

namespace UpperPane\Tests\Browser\Support;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\ElementClickInterceptedException;
use Facebook\WebDriver\Exception\ElementNotInteractableException;
use Facebook\WebDriver\Exception\JavascriptErrorException;
use Facebook\WebDriver\Exception\NoSuchElementException;
use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Exception\TimeoutException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\LocalFileDetector;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverWait;
use PHPUnit\Framework\Assert;

/** Headless Chromium with a page of exactly the size asked for. */
final class Chrome
{
    private function __construct(public readonly RemoteWebDriver $driver, private readonly Process $chromedriver, public readonly string $profile)
    {
    }

    /** @param ?string $profile the folder of an earlier browser, to go on with its storage */
    public static function open(int $width = 1280, int $height = 800, ?string $profile = null): self
    {
        $port = Process::freePort();
        $chromedriver = Process::start(['chromedriver', "--port=$port"], "http://127.0.0.1:$port/status");
        $profile ??= sys_get_temp_dir() . '/upper-pane-chrome-' . bin2hex(random_bytes(6));
        $options = (new ChromeOptions())->addArguments([
            '--headless=new', '--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-quic', '--no-first-run', '--disable-background-networking',
            '--disable-component-update', '--disable-sync', '--hide-scrollbars', '--force-color-profile=srgb', "--user-data-dir=$profile",
        ]);
        $driver = RemoteWebDriver::create("http://127.0.0.1:$port", DesiredCapabilities::chrome()->setCapability(ChromeOptions::CAPABILITY, $options), 30_000, 120_000);
        $chrome = new self($driver, $chromedriver, $profile);
        $chrome->resize($width, $height);

        return $chrome;
    }

    public function resize(int $width, int $height): void
    {
        (new ChromeDevToolsDriver($this->driver))->execute('Emulation.setDeviceMetricsOverride', [
            'width' => $width, 'height' => $height, 'deviceScaleFactor' => 1, 'mobile' => false,
        ]);
    }

    public function go(string $url): self
    {
        $this->driver->get($url);

        return $this;
    }

    /** The first element that fits the CSS selector and, where given, has this text; waits for it. */
    public function see(string $selector, ?string $text = null, int $seconds = 30): RemoteWebElement
    {
        $found = $this->until(fn (): ?RemoteWebElement => $this->find($selector, $text), "“{$selector}” with the text “{$text}”", $seconds);
        assert($found instanceof RemoteWebElement);

        return $found;
    }

    public function find(string $selector, ?string $text = null): ?RemoteWebElement
    {
        foreach ($this->driver->findElements(WebDriverBy::cssSelector($selector)) as $element) {
            if ($element->isDisplayed() && ($text === null || str_contains($element->getText(), $text))) {
                return $element;
            }
        }

        return null;
    }

    public function press(string $selector, ?string $text = null): self
    {
        $this->until(function () use ($selector, $text): bool {
            $this->see($selector, $text)->click();

            return true;
        }, "pressing “{$selector}” “{$text}”");

        return $this;
    }

    /** Types over what stands in a field, and leaves it with Tab. */
    public function type(string $selector, string $text): self
    {
        $this->until(function () use ($selector, $text): bool {
            $field = $this->see($selector);
            $field->click();
            if (preg_match('/[\n\x{E000}-\x{F8FF}]/u', $text) === 1) {
                // Keys may take the field away.
                $field->sendKeys("\u{E009}a\u{E000}" . $text . "\u{E004}");

                return true;
            }
            $field->sendKeys("\u{E009}a\u{E000}" . $text);
            $stands = $field->getDomProperty('value');
            if ($text !== '' && is_string($stands) && $stands !== $text && str_ends_with($stands, $text)) {
                // What stood there was not chosen yet when it was typed over.
                return false;
            }
            $field->sendKeys("\u{E004}");

            return true;
        }, "typing “{$text}” into “{$selector}”");

        return $this;
    }

    /** What a field holds, or what stands there until it is one. */
    public function value(string $selector): string
    {
        return self::valueOf($this->see($selector));
    }

    private static function valueOf(RemoteWebElement $field): string
    {
        return (string) ($field->getDomProperty('value') ?? $field->getText());
    }

    /** A field with the focus in it; a figure is text before. */
    public function enter(string $selector): RemoteWebElement
    {
        $this->see($selector)->click();

        return $this->see("$selector:focus");
    }

    /** Waits until a field holds this value. */
    public function holds(string $selector, string $value): self
    {
        $this->until(fn (): bool => ($field = $this->find($selector)) !== null && self::valueOf($field) === $value, "“{$value}” in “{$selector}”");

        return $this;
    }

    /** Waits until so many elements fit the CSS selector. */
    public function count(string $selector, int $count): self
    {
        $this->until(fn (): bool => count($this->driver->findElements(WebDriverBy::cssSelector($selector))) === $count, "$count of “{$selector}”");

        return $this;
    }

    /** Gives a file to a chooser, which may be hidden: people press a button or drop a file instead. */
    public function give(string $selector, string $file): self
    {
        $this->until(function () use ($selector, $file): bool {
            $this->driver->findElement(WebDriverBy::cssSelector($selector))->setFileDetector(new LocalFileDetector())->sendKeys($file);

            return true;
        }, "giving $file to “{$selector}”");

        return $this;
    }

    /**
     * @template T
     * @param \Closure(): T $condition anything but null, false and a thrown web driver error
     * @return T
     */
    public function until(\Closure $condition, string $what, int $seconds = 30): mixed
    {
        try {
            $result = (new WebDriverWait($this->driver, $seconds, 100))->until(static function () use ($condition): mixed {
                try {
                    return $condition() ?: null;
                } catch (StaleElementReferenceException | ElementClickInterceptedException | ElementNotInteractableException | NoSuchElementException | JavascriptErrorException) {
                    // The page is being drawn: what is meant is not there yet, or no longer.
                    return null;
                }
            });
        } catch (TimeoutException) {
            $picture = dirname(__DIR__, 3) . '/var/browser-failure.png';
            $this->driver->takeScreenshot($picture);
            throw new \RuntimeException("Waited $seconds s for $what at {$this->driver->getCurrentURL()}; see $picture");
        }
        // What was waited for has come: that is what a test in a browser asserts.
        Assert::assertNotNull($result, $what);

        return $result;
    }

    /** Runs a script, once more where the page has not yet drawn what it reaches for. */
    public function script(string $script, mixed ...$arguments): mixed
    {
        $result = null;
        $this->until(function () use (&$result, $script, $arguments): bool {
            $result = $this->driver->executeScript($script, array_values($arguments));

            return true;
        }, 'a script');

        return $result;
    }

    public function shot(string $file): void
    {
        $this->driver->takeScreenshot($file);
    }

    public function close(): void
    {
        try {
            $this->driver->quit();
        } finally {
            $this->chromedriver->stop();
        }
    }
}

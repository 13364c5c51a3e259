<?php

declare(strict_types=1);

namespace UpperPane\Tests\App\Http;

use Doctrine\DBAL\Driver\PDO\Exception as DriverException;
use Doctrine\DBAL\Exception\ConnectionException;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Psr\Log\AbstractLogger;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\MethodNotAllowedHttpException;
use Symfony\Component\HttpKernel\HttpKernelInterface;
use UpperPane\App\Http\Problem;
use UpperPane\App\Http\ProblemListener;
use UpperPane\Core\Document\DocumentRefused;
use UpperPane\Core\Document\Reason;

/** Every failure of the API answers with a code, a sentence and a path, and tells nothing of the inside. */
final class ProblemTest extends TestCase
{
    #[DataProvider('failures')]
    public function testAnswers(\Throwable $e, int $status, string $code, string $path): void
    {
        $answer = $this->answer($e);

        self::assertSame([$status, $code, $path], [$answer[0], $answer[1]['error']['code'], $answer[1]['error']['path']]);
        self::assertNotSame('', $answer[1]['error']['message']);
    }

    /** @return iterable<string, array{\Throwable, int, string, string}> */
    public static function failures(): iterable
    {
        $gone = new \PDOException('SQLSTATE[HY000] [2002] Connection refused');
        yield 'a document refused' => [DocumentRefused::because(Reason::FieldMissing, '/canvas is missing.', '/canvas'), 422, 'field.missing', '/canvas'];
        yield 'a problem of ours' => [new Problem(409, 'revision.stale', 'Somebody was faster.'), 409, 'revision.stale', ''];
        yield 'something that is not there' => [Problem::notFound('This layout'), 404, 'not.found', ''];
        yield 'the wrong method' => [new MethodNotAllowedHttpException(['GET'], 'No.'), 405, 'request.wrong', ''];
        yield 'the database is away' => [new ConnectionException(DriverException::new($gone), null), 503, 'storage.away', ''];
        yield 'the database is away, below the session' => [$gone, 503, 'storage.away', ''];
        yield 'the database went in the middle' => [new \RuntimeException('x', 0, new \PDOException('SQLSTATE[HY000]: General error: 2006 MySQL server has gone away')), 503, 'storage.away', ''];
        yield 'a fault of ours' => [new \LogicException('secret inside'), 500, 'failed', ''];
    }

    public function testAFaultOfOursIsWrittenDownAndNotTold(): void
    {
        $log = new class extends AbstractLogger {
            /** @var list<string> */
            public array $lines = [];

            /** @param array<mixed> $context */
            public function log($level, string|\Stringable $message, array $context = []): void
            {
                $this->lines[] = json_encode($context['message'] ?? '') ?: '';
            }
        };
        $answer = $this->answer(new \LogicException('secret inside'), $log);

        self::assertStringNotContainsString('secret', (string) json_encode($answer));
        self::assertSame(['"secret inside"'], $log->lines);
    }

    /** @return array{int, array<string, mixed>} */
    private function answer(\Throwable $e, ?AbstractLogger $log = null): array
    {
        $kernel = $this->createStub(HttpKernelInterface::class);
        $event = new ExceptionEvent($kernel, Request::create('/api/layouts'), HttpKernelInterface::MAIN_REQUEST, $e);
        (new ProblemListener($log ?? new \Psr\Log\NullLogger()))($event);
        $response = $event->getResponse();
        self::assertNotNull($response);

        return [$response->getStatusCode(), (array) json_decode((string) $response->getContent(), true)];
    }
}

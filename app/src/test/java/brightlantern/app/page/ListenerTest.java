package brightlantern.app.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** A page that does not read costs nobody else anything. */
@Timeout(30)
class ListenerTest {
    private final CountDownLatch reads = new CountDownLatch(1);
    private final CountDownLatch asleep = new CountDownLatch(1);

    private static Listener page(Sending way) {
        return page(way, () -> {}, () -> {});
    }

    private static Listener page(Sending way, Runnable closed, Runnable end) {
        return new Listener(
                new Listener.Way() {
                    @Override
                    public void send(String name, Object data) throws IOException {
                        way.send(name, data);
                    }

                    @Override
                    public void close() {
                        closed.run();
                    }
                },
                self -> end.run());
    }

    private interface Sending {
        void send(String name, Object data) throws IOException;
    }

    /** A page that reads nothing until it is told to. */
    private Listener sleeper(List<Object> got, CountDownLatch last) {
        return page(
                (name, data) -> {
                    asleep.countDown();
                    sleep();
                    got.add(name + " " + data);
                    if (data.equals("last")) {
                        last.countDown();
                    }
                });
    }

    @Test
    void fortySleepersHoldUpNeitherTheTellerNorAnotherPage() throws Exception {
        CountDownLatch never = new CountDownLatch(1);
        List<Listener> sleepers =
                IntStream.range(0, 40)
                        .mapToObj(i -> sleeper(new CopyOnWriteArrayList<>(), never))
                        .toList();
        CountDownLatch read = new CountDownLatch(1);
        Listener awake = page((name, data) -> read.countDown());
        for (int i = 0; i < 1000; i++) {
            for (Listener s : sleepers) {
                s.tell(new Object(), "values", i);
            }
        }
        awake.tell("head", "head", "12.6 V");
        assertThat(read.await(5, TimeUnit.SECONDS)).isTrue();
        reads.countDown();
    }

    @Test
    void whoeverReadsAgainHearsFirstHowMuchWasMissed() throws Exception {
        List<Object> got = new CopyOnWriteArrayList<>();
        CountDownLatch last = new CountDownLatch(1);
        Listener page = sleeper(got, last);
        page.tell(new Object(), "values", "first");
        asleep.await();
        for (int i = 0; i < Listener.LINE + 9; i++) {
            page.tell(new Object(), "values", i);
        }
        page.tell(new Object(), "values", "last");
        reads.countDown();
        assertThat(last.await(5, TimeUnit.SECONDS)).isTrue();
        assertThat(got.get(0)).isEqualTo("values first");
        assertThat(got.get(1)).isEqualTo("lost 10");
        assertThat(got.get(2)).isEqualTo("values 10");
        assertThat(got).hasSize(Listener.LINE + 2);
    }

    @Test
    void ofTheSameThingOnlyTheNewestWaits() throws Exception {
        List<Object> got = new CopyOnWriteArrayList<>();
        CountDownLatch last = new CountDownLatch(1);
        Listener page = sleeper(got, last);
        page.tell("head", "head", "old");
        asleep.await();
        page.tell("head", "head", "older");
        page.tell("head", "head", "newer");
        page.tell("end", "changed", "last");
        reads.countDown();
        assertThat(last.await(5, TimeUnit.SECONDS)).isTrue();
        assertThat(got).containsExactly("head old", "head newer", "changed last");
    }

    @Test
    void aStreamThatIsEndedIsClosedEvenWhileItsPageSleeps() throws Exception {
        CountDownLatch closed = new CountDownLatch(1);
        CountDownLatch ended = new CountDownLatch(1);
        Listener page =
                page(
                        (name, data) -> {
                            asleep.countDown();
                            sleep();
                        },
                        closed::countDown,
                        ended::countDown);
        page.tell("head", "head", 1);
        asleep.await();
        page.end();
        assertThat(closed.await(5, TimeUnit.SECONDS)).isTrue();
        assertThat(ended.getCount()).isZero();
        reads.countDown();
    }

    private void sleep() throws IOException {
        try {
            reads.await();
        } catch (InterruptedException stopped) {
            throw new IOException(stopped);
        }
    }

    @Test
    void aPageThatIsGoneIsToldNothingMore() throws Exception {
        AtomicInteger told = new AtomicInteger();
        CountDownLatch ended = new CountDownLatch(1);
        Listener page =
                page(
                        (name, data) -> {
                            told.incrementAndGet();
                            throw new IOException("gone");
                        },
                        () -> {},
                        ended::countDown);
        page.tell("head", "head", 1);
        assertThat(ended.await(5, TimeUnit.SECONDS)).isTrue();
        page.tell("head", "head", 2);
        assertThat(page.isGone()).isTrue();
        assertThat(told.get()).isEqualTo(1);
    }
}

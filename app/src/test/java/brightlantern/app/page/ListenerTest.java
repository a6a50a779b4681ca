package brightlantern.app.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** A page that does not read costs nobody else anything. */
@Timeout(30)
class ListenerTest {
    private final CountDownLatch reads = new CountDownLatch(1);
    private final CountDownLatch asleep = new CountDownLatch(1);

    /** A page that reads nothing until it is told to. */
    private Listener sleeper(List<Object> got, CountDownLatch last) {
        return new Listener(
                (name, data) -> {
                    asleep.countDown();
                    try {
                        reads.await();
                    } catch (InterruptedException stopped) {
                        throw new IOException(stopped);
                    }
                    got.add(name + " " + data);
                    if (data.equals("last")) {
                        last.countDown();
                    }
                },
                () -> {});
    }

    @Test
    void fortySleepersHoldUpNeitherTheTellerNorAnotherPage() throws Exception {
        CountDownLatch never = new CountDownLatch(1);
        List<Listener> sleepers =
                IntStream.range(0, 40)
                        .mapToObj(i -> sleeper(new CopyOnWriteArrayList<>(), never))
                        .toList();
        CountDownLatch read = new CountDownLatch(1);
        Listener awake = new Listener((name, data) -> read.countDown(), () -> {});
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
    void aPageThatIsGoneIsToldNothingMore() throws Exception {
        CountDownLatch ended = new CountDownLatch(1);
        Listener page =
                new Listener(
                        (name, data) -> {
                            throw new IOException("gone");
                        },
                        ended::countDown);
        page.tell("head", "head", 1);
        assertThat(ended.await(5, TimeUnit.SECONDS)).isTrue();
        page.tell("head", "head", 2);
    }
}

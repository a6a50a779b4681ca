package brightlantern.core.capture.bus;

import brightlantern.core.network.ExpectedFrames;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * What a station sent, held against what it should.
 *
 * @param everyMs from one of its frames to the next on the mean, ms; NaN for fewer than two
 * @param leastBytes of data in one of them, and {@code mostBytes}; 0 for none
 * @param odd what is not as described, in words; empty for nothing
 */
public record SentFrames(
        String station, double everyMs, int leastBytes, int mostBytes, Optional<String> odd) {
    /** Frames wait for others: until it is more than this share off, a pace is right. */
    private static final double OFF_PACE = 0.4;

    static SentFrames of(String station, ExpectedFrames expected, List<CanFrame> frames) {
        List<CanFrame> its =
                frames.stream().sorted(Comparator.comparingDouble(CanFrame::seconds)).toList();
        int n = its.size();
        double every =
                n < 2
                        ? Double.NaN
                        : 1000 * (its.get(n - 1).seconds() - its.get(0).seconds()) / (n - 1);
        int least = its.stream().mapToInt(f -> f.data().length).min().orElse(0);
        int most = its.stream().mapToInt(f -> f.data().length).max().orElse(0);
        Optional<String> odd = Optional.empty();
        if (n > 0 && (least < expected.leastBytes() || most > expected.mostBytes())) {
            odd =
                    Optional.of(
                            String.format(
                                    Locale.ROOT,
                                    "%s sends frames of %s bytes, expected %s",
                                    station,
                                    range(least, most),
                                    range(expected.leastBytes(), expected.mostBytes())));
        } else if (every < (1 - OFF_PACE) * expected.everyMs()
                || every > (1 + OFF_PACE) * expected.everyMs()) {
            odd =
                    Optional.of(
                            String.format(
                                    Locale.ROOT,
                                    "%s sends too %s: every %.1f ms, expected every %.1f",
                                    station,
                                    every < expected.everyMs() ? "often" : "seldom",
                                    every,
                                    expected.everyMs()));
        }
        return new SentFrames(station, every, least, most, odd);
    }

    private static String range(int least, int most) {
        return least == most ? "" + least : least + " to " + most;
    }

    /** Bytes of its frames, in words; a dash for none. */
    public String bytes() {
        return mostBytes == 0 ? "–" : range(leastBytes, mostBytes);
    }
}

package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.attachment.Content;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.SoundReader;
import brightlantern.core.capture.comtrade.ComtradeReader;
import brightlantern.core.capture.comtrade.ComtradeWriter;
import brightlantern.core.code.Dtc;
import brightlantern.core.configuration.TrimCode;
import brightlantern.core.emission.MonitorResult;
import brightlantern.core.emission.Readiness;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.procedure.actuator.ByHand;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.TypedFigure;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Words;
import brightlantern.core.sound.Wav;
import brightlantern.core.study.map.Axis;
import brightlantern.core.sweep.ProductionDate;
import brightlantern.core.take.Take;
import brightlantern.core.take.TakeChunk;
import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.mdf.MdfReader;
import brightlantern.core.take.mdf.MdfWriter;
import brightlantern.core.vehicle.Vin;
import brightlantern.standin.module.CodeMemory;
import brightlantern.standin.module.UdsModule;
import brightlantern.wire.Bytes;
import brightlantern.wire.doip.DoipCodec;
import brightlantern.wire.scpi.CommandProfile;
import brightlantern.wire.scpi.ScpiLine;
import brightlantern.wire.uds.DtcAnswers;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Whatever comes over the wire, out of a file or from a keyboard is read or refused with the
 * exception that is documented, in reasonable time: never another one, never an end of memory.
 * Inputs are good ones, mutated; {@code -Dfuzz=N} sets how many in all, {@code -Dseed=N} which.
 */
class FuzzTest {
    private static final long RUNS = Long.getLong("fuzz", 100_000);
    private static final long SEED = Long.getLong("seed", 1);

    /** Only targets of which this is a part of the name. */
    private static final String ONLY = System.getProperty("only", "");

    /** An input that is longer than this says nothing that a shorter one does not. */
    private static final int MOST_BYTES = 8192;

    /** One input takes far less than this, however slow the machine is. */
    private static final double MOST_SECONDS = 10;

    private static final Signals VAN = Shipped.vehicle("tamarack-portage").signals();

    /** Reads an input. */
    private interface Reads {
        void it(byte[] input) throws Exception;
    }

    /**
     * @param share of all inputs, in parts of a thousand
     */
    private record Target(String name, int share, List<byte[]> good, Reads reads) {
        @Override
        public String toString() {
            return name;
        }
    }

    private static Target bytes(String name, int share, Reads reads, String... hex) {
        return new Target(
                name, share, Stream.of(hex).map(h -> Bytes.hex(h).toArray()).toList(), reads);
    }

    private static Target text(String name, int share, Reads reads, String... good) {
        return new Target(
                name,
                share,
                Stream.of(good).map(g -> g.getBytes(StandardCharsets.UTF_8)).toList(),
                reads);
    }

    private static String text(byte[] input) {
        return new String(input, StandardCharsets.UTF_8);
    }

    static Stream<Target> targets() throws IOException {
        return Stream.of(
                        bytes(
                                "DoIP frame",
                                200,
                                DoipCodec::decode,
                                "02FD000400000021 5A5A545047323244334D31303030343039 1001 02AA00000001"
                                        + " 02AA00000001 00 00",
                                "02FD8001000000070E80101022F190",
                                "02FD000600000009 0E80 1001 10 00000000",
                                "02FD400200000003 01 10 01"),
                        bytes(
                                "DoIP stream",
                                100,
                                in -> DoipCodec.read(new ByteArrayInputStream(in)),
                                "02FD8001000000070E80101022F190",
                                "02FD00080000000002FD000700000000"),
                        bytes(
                                "answers about codes",
                                150,
                                FuzzTest::codes,
                                "5902FF02990008",
                                "5901FF010002",
                                "59030299000102990002",
                                "590402990009 01 01 F400 0C80",
                                "5942 33 FF FF 04 20029900 08",
                                "5955 33 FF 04 029900 08"),
                        bytes(
                                "emission data",
                                150,
                                FuzzTest::emission,
                                "0081076500",
                                "01020A0064000000C8",
                                "FFFFFFFF"),
                        new Target("module", 150, requests(), module()),
                        text(
                                "SCPI line",
                                80,
                                in -> ScpiLine.parse(text(in)),
                                "MEAS:VOLT:DC? (@X35.1)",
                                ":TIMebase:SCALe 1e-3;*OPC?",
                                "INP:LOAD LAMP"),
                        text(
                                "typed figure",
                                60,
                                FuzzTest::typed,
                                "47 mV",
                                "1,2k",
                                "OL",
                                "-0.5e-3 kΩ",
                                "1'234.5"),
                        text(
                                "typed words",
                                60,
                                FuzzTest::words,
                                "P0299-00",
                                "ZZTPG22D3M1000409",
                                "0 to 100 in 5 s, 50 for 2 s",
                                "500, 1000, 2000",
                                "A7K2-09Q",
                                "60 °C, rises by 20 °C"),
                        text(
                                "filter",
                                30,
                                in -> FilterParser.parse(text(in), VAN),
                                "engine.load > 75 % for 1 s",
                                "coolant > 70 and not (vehicle.speed < 3 km/h or engine.speed = 0)"),
                        text(
                                "profile of an oscilloscope",
                                10,
                                in ->
                                        CommandProfile.read(
                                                CommandProfile.Kind.OSCILLOSCOPE,
                                                new ByteArrayInputStream(in)),
                                "rate = ACQuire:SRATe\nname = one"),
                        text(
                                "log as CSV",
                                4,
                                FuzzTest::csv,
                                "time;speed;load\ns;rpm;%\n0,0;800;14\n0,1;805;15\n",
                                "\"Time\",\"RPM\"\n2026-01-01 10:00:00.5,800\n2026-01-01 10:00:01,810\n"),
                        new Target("log as MDF", 3, List.of(mdf()), MdfReader::read),
                        new Target("sound", 3, List.of(wav()), Wav::read),
                        new Target("lanes of sound", 3, List.of(wav()), SoundReader::read),
                        new Target("lanes of C37.111", 3, List.of(cff()), ComtradeReader::read),
                        new Target("piece of a take", 3, List.of(chunk()), TakeChunk::read),
                        text(
                                "attached file",
                                3,
                                in -> Content.of("stud.jpg", in),
                                "<svg onload='x()'>",
                                "\u0089PNG\r\n",
                                "%PDF-1.7"))
                .filter(t -> t.name().contains(ONLY));
    }

    private static void codes(byte[] in) throws IOException {
        Bytes answer = Bytes.of(in);
        List<Reads> readers =
                List.of(
                        b -> DtcAnswers.count(answer),
                        b -> DtcAnswers.list(answer),
                        b -> DtcAnswers.snapshotIds(answer),
                        b -> DtcAnswers.severities(answer),
                        b -> DtcAnswers.groupCodes(answer, 0x33),
                        b -> DtcAnswers.groupPermanent(answer, 0x33),
                        b -> DtcAnswers.snapshots(answer, 0x029900, Map.of(0xF400, 2)));
        each(in, readers);
    }

    private static void emission(byte[] in) throws IOException {
        each(
                in,
                List.of(
                        Readiness::decode,
                        b -> MonitorResult.decode(1, b),
                        b -> MonitorResult.supported(0, b),
                        ProductionDate::text));
    }

    private static void typed(byte[] in) throws IOException {
        String text = text(in);
        each(
                in,
                List.of(
                        b -> TypedFigure.isOverload(text),
                        b -> TypedFigure.of("Reading", text, "V"),
                        b -> TypedFigure.of("Ohms", text, "Ω")));
    }

    private static void words(byte[] in) throws IOException {
        String text = text(in);
        each(
                in,
                List.of(
                        b -> Dtc.parse(text),
                        b -> new Vin(text).checkDigitHolds(),
                        b -> ByHand.legs(text),
                        b -> Axis.typed("engine.speed", text),
                        b -> TrimCode.coded(text),
                        b -> Units.inText(text, Map.of("temperature", "°F")),
                        b -> Words.harmless(Words.plain(text))));
    }

    private static void csv(byte[] in) throws IOException {
        CsvLook look = CsvLook.at(in);
        CsvImport.read(new ByteArrayInputStream(in), look.dialect(), CsvImport.own(look.dialect()));
    }

    /** All readers, one after another, whatever the one before says. */
    private static void each(byte[] in, List<Reads> readers) {
        for (Reads reader : readers) {
            judged(reader, in);
        }
    }

    private static List<byte[]> requests() {
        return Stream.of(
                        "1003",
                        "3E80",
                        "22F190F18C",
                        "1902FF",
                        "19040299 0001",
                        "14FFFFFF",
                        "2F2100 03 10",
                        "3101 0201",
                        "1101",
                        "85 02",
                        "28 03 01",
                        "2EF190 41")
                .map(h -> Bytes.hex(h).toArray())
                .toList();
    }

    /** A module with something of all that modules have; it answers whatever it is asked. */
    private static Reads module() {
        UdsModule module =
                new UdsModule(
                                0x1010,
                                0,
                                new CodeMemory(
                                        List.of(new CodeMemory.Supported(0x029900, 0x80, true))),
                                () -> true)
                        .identifier(0xF190, () -> Bytes.text("ZZTPG22D3M1000409"))
                        .identifier(0xF18C, () -> Bytes.of(1, 2, 3));
        return in -> {
            if (in.length > 0) {
                module.handle(Bytes.of(in));
            }
        };
    }

    private static Take take() {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        double[] t = new double[40];
        double[] y = new double[40];
        for (int i = 0; i < t.length; i++) {
            t[i] = i / 10.0;
            y[i] = 800 + i;
        }
        columns.put("engine.speed", new Take.Column(t, y));
        columns.put("coolant", new Take.Column(t, y));
        return new Take(columns, List.of(new Take.Mark(1.5, "here")));
    }

    private static byte[] mdf() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        MdfWriter.write(take(), VAN, Instant.EPOCH, out);
        return out.toByteArray();
    }

    private static byte[] chunk() {
        return TakeChunk.write(take().columns());
    }

    private static byte[] cff() {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        double[] volts = {1, 2, 3, 2, 1, 0, -1};
        try {
            ComtradeWriter.write(
                    new Capture(1e-3, List.of(Lane.of("A", LaneRole.OTHER, "V", "", volts))),
                    "one",
                    Instant.EPOCH,
                    out);
        } catch (IOException never) {
            throw new AssertionError(never);
        }
        return out.toByteArray();
    }

    private static byte[] wav() {
        ByteBuffer b = ByteBuffer.allocate(44 + 400).order(ByteOrder.LITTLE_ENDIAN);
        b.put("RIFF".getBytes(StandardCharsets.US_ASCII)).putInt(36 + 400);
        b.put("WAVEfmt ".getBytes(StandardCharsets.US_ASCII)).putInt(16);
        b.putShort((short) 1).putShort((short) 1).putInt(8000).putInt(16000);
        b.putShort((short) 2).putShort((short) 16);
        b.put("data".getBytes(StandardCharsets.US_ASCII)).putInt(400);
        return b.array();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("targets")
    void whateverComesInIsReadOrRefused(Target target) {
        Random random = new Random(SEED + target.name().hashCode());
        long runs = Math.max(1, RUNS * target.share() / 1000);
        double slowest = 0;
        double all = 0;
        for (long i = 0; i < runs; i++) {
            byte[] input = mutated(target.good(), random);
            long began = System.nanoTime();
            judged(target.reads(), input);
            double took = (System.nanoTime() - began) / 1e9;
            slowest = Math.max(slowest, took);
            all += took;
        }
        assertThat(slowest).as("seconds of the slowest input").isLessThan(MOST_SECONDS);
        System.out.printf(
                "fuzz: %s: %d inputs in %.1f s, slowest %.3f s%n",
                target.name(), runs, all, slowest);
    }

    /** Fails with the input when it is neither read nor refused as documented. */
    private static void judged(Reads reads, byte[] input) {
        try {
            reads.it(input);
        } catch (IOException | FilterException refused) {
            refused(refused, input);
        } catch (IllegalArgumentException refused) {
            if (refused.getClass() != IllegalArgumentException.class) {
                throw undocumented(refused, input);
            }
            refused(refused, input);
        } catch (Exception | StackOverflowError | OutOfMemoryError other) {
            throw undocumented(other, input);
        }
    }

    private static void refused(Exception why, byte[] input) {
        if (why.getMessage() == null || why.getMessage().isBlank()) {
            throw undocumented(why, input);
        }
    }

    private static AssertionError undocumented(Throwable what, byte[] input) {
        return new AssertionError(what + " at " + HexFormat.of().formatHex(input), what);
    }

    private static byte[] mutated(List<byte[]> good, Random random) {
        byte[] input = good.get(random.nextInt(good.size())).clone();
        for (int n = random.nextInt(6); n >= 0; n--) {
            input = once(input, good, random);
        }
        return input;
    }

    private static byte[] once(byte[] in, List<byte[]> good, Random random) {
        int at = in.length == 0 ? 0 : random.nextInt(in.length);
        byte[] out = in.clone();
        switch (random.nextInt(8)) {
            case 0 -> set(out, at, out.length == 0 ? 0 : out[at] ^ 1 << random.nextInt(8));
            case 1 -> set(out, at, random.nextInt(256));
            case 2 -> set(out, at, new int[] {0, 0x7F, 0x80, 0xFF}[random.nextInt(4)]);
            case 3 -> out = spliced(in, at, new byte[] {(byte) random.nextInt(256)}, at);
            case 4 -> out = spliced(in, at, new byte[0], Math.min(in.length, at + 1));
            case 5 -> out = spliced(in, at, new byte[0], in.length);
            case 6 -> out = spliced(in, at, in, at);
            default -> {
                byte[] other = good.get(random.nextInt(good.size()));
                out = spliced(in, at, other, Math.min(in.length, at + other.length));
            }
        }
        return out.length > MOST_BYTES ? Arrays.copyOf(out, MOST_BYTES) : out;
    }

    private static void set(byte[] bytes, int at, int value) {
        if (bytes.length > 0) {
            bytes[at] = (byte) value;
        }
    }

    /** The beginning up to a place, something, and the rest from another place on. */
    private static byte[] spliced(byte[] in, int upTo, byte[] with, int from) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(in, 0, upTo);
        out.writeBytes(with);
        out.write(in, from, in.length - from);
        return out.toByteArray();
    }
}

package brightlantern.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.signal.Units;
import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvImport.Imported;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.core.take.csv.LongForm;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class CsvImportTest {
    private static Imported read(byte[] bytes) throws IOException {
        Dialect dialect = CsvLook.at(bytes).dialect();
        return CsvImport.read(new ByteArrayInputStream(bytes), dialect, CsvImport.own(dialect));
    }

    private static Imported read(String text) throws IOException {
        return read(text.getBytes(StandardCharsets.UTF_8));
    }

    private static void holds(Imported in, String id, double... values) {
        Take.Column column = in.take().columns().get(id);
        assertThat(column).as("%s of %s", id, in.take().columns().keySet()).isNotNull();
        double[] found = new double[column.size()];
        for (int i = 0; i < found.length; i++) {
            found[i] = column.value(i);
        }
        assertThat(found).containsExactly(values, within(1e-9));
    }

    private static void times(Imported in, String id, double... seconds) {
        Take.Column column = in.take().columns().get(id);
        double[] found = new double[column.size()];
        for (int i = 0; i < found.length; i++) {
            found[i] = column.seconds(i);
        }
        assertThat(found).containsExactly(seconds, within(1e-6));
    }

    /** The same little log in many hands' writing. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "time [s],speed [rpm],temp [°C]\n0.0,800,71.5\n0.5,810,71.6\n1.0,820,71.7\n",
                "time;speed;temp\ns;rpm;°C\n0,0;800;71,5\n0,5;810;71,6\n1,0;820;71,7\n",
                "Time (ms)\tspeed (rpm)\ttemp (°C)\n0\t800\t71.5\n500\t810\t71.6\n1000\t820\t71.7\n",
                "time|speed|temp\n10:00:00.0|800|71.5\n10:00:00.5|810|71.6\n10:00:01.0|820|71.7\n",
                "timestamp,speed,temp\n2026-11-20 10:00:00.000,800,71.5\n2026-11-20 10:00:00.500,810,71.6\n2026-11-20 10:00:01.000,820,71.7\n",
                "timestamp,speed,temp\n1793516400000,800,71.5\n1793516400500,810,71.6\n1793516401000,820,71.7\n",
                "\"time\",\"speed\",\"temp\"\n\"0,0\",\"800\",\"71,5\"\n\"0,5\",\"810\",\"71,6\"\n\"1,0\",\"820\",\"71,7\"\n",
                "logger 4711\nrecorded by hand\ntime;speed;temp\n0.0;800;71.5\n0.5;810;71.6\n1.0;820;71.7\n",
                "\r\ntime,speed,temp\r\n0.0,800,71.5\r\n\r\n0.5,810,71.6\r\n1.0,820,71.7",
                "time,speed,temp\n0.0,800,71.5\n0.5,810,71.6\ntime,speed,temp\n1.0,820,71.7\n",
            })
    void oneLogInManyDialects(String text) throws IOException {
        Imported in = read(text);
        holds(in, "log.speed", 800, 810, 820);
        holds(in, "log.temp", 71.5, 71.6, 71.7);
        times(in, "log.speed", 0, 0.5, 1.0);
        assertThat(in.rows()).isEqualTo(3);
    }

    @Test
    void everyValueMayHaveATimeColumnOfItsOwn() throws IOException {
        Imported in =
                read(
                        "t1 [s],speed,t2 [s],temp\n0,800,0.2,71\n1,810,1.2,72\n2,820,,\n3,830,3.2,74\n");
        times(in, "log.speed", 0, 1, 2, 3);
        times(in, "log.temp", 0.2, 1.2, 3.2);
        holds(in, "log.temp", 71, 72, 74);
    }

    @Test
    void wordsAreStatesAndGapsAreGaps() throws IOException {
        Imported in = read("time,fan,speed\n0,off,800\n1,off,\n2,on,820\n3,on,bad\n");
        holds(in, "log.fan", 0, 0, 1, 1);
        assertThat(in.values().get(0).states()).isEqualTo(Map.of(0, "off", 1, "on"));
        times(in, "log.speed", 0, 2);
        assertThat(in.remarks())
                .anyMatch(r -> r.contains("Line 5, speed: expected a number, found 'bad'"));
    }

    @Test
    void clocksPassMidnightAndTimesThatGoBackAreTold() throws IOException {
        Imported night = read("clock,speed\n23:59:59,1\n00:00:00,2\n00:00:01,3\n");
        times(night, "log.speed", 0, 1, 2);
        Imported jump =
                read(
                        "time,speed\n0,1\n1,2\n2,3\n0.5,4\n1.5,5\n2.5,6\n3.5,6\n4.5,6\n5.5,6\n6.5,6\n7.5,7\n8.5,8\n");
        assertThat(jump.remarks()).anyMatch(r -> r.startsWith("Line 5: time goes back by 1.500 s"));
        assertThat(jump.take().marks()).hasSize(1);
        times(jump, "log.speed", 0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11);
    }

    @Test
    void aTornLastLineCostsThatLine() throws IOException {
        Imported in = read("time,speed,temp\n0,800,71\n1,810,72\n2,82");
        holds(in, "log.speed", 800, 810);
        assertThat(in.remarks()).contains("The last line is torn; it was left out.");
    }

    @Test
    void encodingsAreFoundAndMixedOnesTold() throws IOException {
        String text = "time;öltemperatur [°C]\n0;80\n1;81\n";
        for (Charset charset : List.of(StandardCharsets.UTF_8, Charset.forName("windows-1252"))) {
            Imported in = read(text.getBytes(charset));
            assertThat(in.values().get(0).name()).isEqualTo("öltemperatur");
            assertThat(in.values().get(0).unit()).isEqualTo("°C");
        }
        byte[] wide = ("\uFEFF" + text).getBytes(StandardCharsets.UTF_16LE);
        assertThat(CsvLook.at(wide).dialect().charset()).isEqualTo(StandardCharsets.UTF_16LE);
        assertThat(
                        CsvLook.at(("\uFEFF" + text).getBytes(StandardCharsets.UTF_8))
                                .dialect()
                                .columns()
                                .get(0)
                                .name())
                .isEqualTo("time");
        StringBuilder large = new StringBuilder("time;fan\n");
        for (int i = 0; i < 40_000; i++) {
            large.append(i).append(";off\n");
        }
        byte[] head = large.toString().getBytes(StandardCharsets.UTF_8);
        byte[] tail = "40000;\u00e4n\n".getBytes(StandardCharsets.ISO_8859_1);
        byte[] mixed = Arrays.copyOf(head, head.length + tail.length);
        System.arraycopy(tail, 0, mixed, head.length, tail.length);
        Dialect dialect = CsvLook.at(Arrays.copyOf(mixed, CsvLook.ENOUGH_BYTES)).dialect();
        Imported in =
                CsvImport.read(new ByteArrayInputStream(mixed), dialect, CsvImport.own(dialect));
        assertThat(in.remarks())
                .anyMatch(r -> r.startsWith("Line 40002: bytes that are not UTF-8"));
    }

    @Test
    void whatIsNoTableIsNamed() {
        assertThatThrownBy(() -> CsvLook.at(new byte[0])).hasMessageContaining("empty");
        assertThatThrownBy(() -> CsvLook.at(new byte[200])).hasMessageContaining("zero bytes");
        assertThatThrownBy(() -> read("just words\nand more words\n"))
                .hasMessageContaining("No line of numbers");
        StringBuilder wide = new StringBuilder("a");
        for (int i = 0; i < 1_000_000; i++) {
            wide.append(",a");
        }
        assertThatThrownBy(() -> read(wide + "\n1,2\n"))
                .hasMessageStartingWith("Line 1: ")
                .hasMessageContaining("at most 2000");
    }

    @Test
    void unitsAreTurnedIntoTheValuesOwn() throws Exception {
        VehicleDescription van = Vehicles.portage();
        byte[] text = "time,p [bar],gas [%]\n0,1,5\n1,2.35,6\n".getBytes(StandardCharsets.UTF_8);
        Dialect dialect = CsvLook.at(text).dialect();
        Map<Integer, CsvImport.Mapped> mapped = new HashMap<>(CsvImport.own(dialect));
        mapped.put(1, new CsvImport.Mapped(van.value("boost.actual").orElseThrow(), "bar"));
        Imported in = CsvImport.read(new ByteArrayInputStream(text), dialect, mapped);
        holds(in, "boost.actual", 100, 235);
        mapped.put(1, new CsvImport.Mapped(van.value("engine.speed").orElseThrow(), "bar"));
        assertThat(CsvImport.read(new ByteArrayInputStream(text), dialect, mapped).remarks())
                .anyMatch(r -> r.contains("Cannot turn bar into rpm"));
    }

    /** What leaves comes back: the product's own export. */
    @Test
    void ownExportIsReadBack() throws Exception {
        VehicleDescription van = Vehicles.portage();
        Take take =
                new Take(
                        Map.of(
                                "boost.actual", Columns.of(5, t -> 100 + t),
                                "engine.state", Columns.of(5, t -> t > 2 ? 2 : 1)),
                        List.of(new Take.Mark(1.25, "=1+2"), new Take.Mark(3, "bump")));
        StringWriter out = new StringWriter();
        TakeCsv.write(take, van.signals(), out);
        assertThat(out.toString()).contains("'=1+2").doesNotContain(",=1+2");
        Imported in = read(out.toString());
        assertThat(in.take().marks()).extracting(Take.Mark::seconds).containsExactly(1.25, 3.0);
        assertThat(in.take().columns().get("log.boost-pressure").size()).isEqualTo(50);
        assertThat(in.values())
                .anySatisfy(v -> assertThat(v.states().values()).contains("running", "cranking"));
    }

    @Test
    void numbersAreReadExactly() throws IOException {
        Random random = new Random(3);
        StringBuilder text = new StringBuilder("time,v\n");
        double[] expected = new double[2000];
        for (int i = 0; i < expected.length; i++) {
            double v = (random.nextDouble() - 0.5) * Math.pow(10, random.nextInt(30) - 15);
            String written =
                    random.nextBoolean()
                            ? String.valueOf(v)
                            : String.format(Locale.ROOT, "%.6f", v);
            expected[i] = Double.parseDouble(written);
            text.append(i).append(',').append(written).append('\n');
        }
        Take.Column column = read(text.toString()).take().columns().get("log.v");
        for (int i = 0; i < expected.length; i++) {
            assertThat(column.value(i)).isEqualTo(expected[i]);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "time [µs]|0|500000|1000000",
                "time_us|0|500000|1000000",
                "time [min]|0|0.0083333333333|0.0166666666667",
                "time|0:00.000|0:00.500|0:01.000",
                "time|20.11.2026 10:00:00.0|20.11.2026 10:00:00.5|20.11.2026 10:00:01.0",
                "time|11/20/2026 09:59:59.5 AM|11/20/2026 10:00:00 AM|11/20/2026 10:00:00.5 AM",
                "time|11:59:59.5 AM|12:00:00 PM|12:00:00.5 PM",
                "time|2026-10-25T02:59:59.5+02:00|2026-10-25T02:00:00+01:00|2026-10-25T02:00:00.5+01:00",
            })
    void timesInManyHandsWriting(String name, String a, String b, String c) throws IOException {
        Imported in = read(name + ";v\n" + a + ";1\n" + b + ";2\n" + c + ";3\n");
        holds(in, "log.v", 1, 2, 3);
        times(in, "log.v", 0, 0.5, 1.0);
    }

    @Test
    void datesAreKept() throws IOException {
        assertThat(read("time;v\n20.11.2026 10:00:00;1\n20.11.2026 10:00:01;2\n").start())
                .contains(Instant.parse("2026-11-20T10:00:00Z"));
        assertThat(read("time;v\n1793516400;1\n1793516401;2\n").start())
                .contains(Instant.ofEpochSecond(1793516400));
        assertThat(read("time;v\n0;1\n1;2\n").start()).isEmpty();
    }

    @Test
    void aDateThatMayBeReadInTwoWaysIsAskedAbout() throws IOException {
        byte[] log =
                "time;v\n03/04/2026 10:00:00;1\n03/04/2026 10:00:01;2\n"
                        .getBytes(StandardCharsets.UTF_8);
        assertThat(CsvLook.at(log).remarks()).anyMatch(r -> r.contains("day first"));
        CsvLook said =
                CsvLook.at(
                        log,
                        new CsvLook.Corrections(
                                Optional.empty(),
                                Optional.empty(),
                                OptionalInt.empty(),
                                Optional.empty(),
                                Optional.of(Dialect.DateOrder.MONTH_FIRST)));
        assertThat(
                        CsvImport.read(
                                        new ByteArrayInputStream(log),
                                        said.dialect(),
                                        CsvImport.own(said.dialect()))
                                .start())
                .contains(Instant.parse("2026-03-04T10:00:00Z"));
    }

    @Test
    void whatIsSaidOfAFileCountsBeforeWhatWasFound() throws IOException {
        byte[] log = "a;b;c\n1,5;100;7\n2,5;200;8\n3,5;350;9\n".getBytes(StandardCharsets.UTF_8);
        CsvLook said =
                CsvLook.at(
                        log,
                        new CsvLook.Corrections(
                                Optional.of(';'),
                                Optional.of(true),
                                OptionalInt.of(1),
                                Optional.of(Dialect.Clock.MILLIS),
                                Optional.empty()));
        Imported in =
                CsvImport.read(
                        new ByteArrayInputStream(log),
                        said.dialect(),
                        CsvImport.own(said.dialect()));
        times(in, "log.a", 0, 0.1, 0.25);
        holds(in, "log.a", 1.5, 2.5, 3.5);
    }

    @Test
    void thousandsMayBeSetApart() throws IOException {
        holds(read("time;v\n0;1,234.5\n1;987.25\n2;12,345.0\n"), "log.v", 1234.5, 987.25, 12345);
        holds(read("time;v\n0;1.234,5\n1;987,25\n2;12.345,0\n"), "log.v", 1234.5, 987.25, 12345);
        holds(read("time;v\n0;1,234\n1;987\n2;12,345\n"), "log.v", 1234, 987, 12345);
        holds(read("time;v\n0;1 234,5\n1;987,5\n"), "log.v", 1234.5, 987.5);
    }

    @Test
    void aColumnThatIsMostlyEmptyIsStillOneOfNumbers() throws IOException {
        Imported in = read("time;v\n0;NaN\n1;NaN\n2;null\n3;4.5\n4;n/a\n");
        assertThat(in.values().get(0).isState()).isFalse();
        Take.Column v = in.take().columns().get("log.v");
        assertThat(v.value(v.size() - 1)).isEqualTo(4.5);
    }

    @Test
    void aLineForEachNameAndValueBecomesColumns() throws IOException {
        byte[] log =
                "time;name;value;unit\n0;speed;800;rpm\n0;coolant;71,5;°C\n1;speed;810;rpm\n1;coolant;71,6;°C\n2;speed;820;rpm\n"
                        .getBytes(StandardCharsets.UTF_8);
        LongForm form = LongForm.of(CsvLook.at(log)).orElseThrow();
        StringWriter wide = new StringWriter();
        form.widen(() -> new ByteArrayInputStream(log), wide);
        Imported in = read(wide.toString());
        holds(in, "log.speed", 800, 810, 820);
        holds(in, "log.coolant", 71.5, 71.6);
        times(in, "log.coolant", 0, 1);
        assertThat(in.values()).extracting(v -> v.unit()).containsExactly("rpm", "°C");
    }

    @Test
    void otherKindsOfFilesAreCalledByTheirName() throws IOException {
        assertThatThrownBy(() -> CsvLook.at(new byte[] {'P', 'K', 3, 4, 0, 0, 0}))
                .hasMessageContaining("workbook (.xlsx)");
        assertThatThrownBy(() -> CsvLook.at(new byte[] {0x1F, (byte) 0x8B, 8, 0}))
                .hasMessageContaining(".gz");
        byte[] wide = "time;v\n0;1\n1;2\n".getBytes(StandardCharsets.UTF_16LE);
        holds(read(wide), "log.v", 1, 2);
        holds(read("time;v\n0;1\n1;2\n".getBytes(StandardCharsets.UTF_16BE)), "log.v", 1, 2);
    }

    @ParameterizedTest
    @CsvSource({
        "F,°F",
        "degF,°F",
        "C,°C",
        "Celsius,°C",
        "kph,km/h",
        "KMH,km/h",
        "km/hr,km/h",
        "BAR,bar",
        "1/min,1/min",
        "U/min,rpm",
        "percent,%",
        "Volts,V",
        "psig,psi"
    })
    void unitsAreKnownHoweverTheyAreSpelled(String spelled, String known) {
        assertThat(Units.spelledAs(spelled)).contains(known);
    }

    @Test
    void unitsThatNobodyKnowsStayUnknown() {
        assertThat(Units.spelledAs("furlong")).isEmpty();
    }

    /** Every sample leaves, however often its time stands there and however fine it is. */
    @ParameterizedTest
    @EnumSource(TakeCsv.Layout.class)
    void everySampleLeavesWithAllItsDigits(TakeCsv.Layout layout) throws Exception {
        VehicleDescription van = Vehicles.portage();
        double[] whole = new double[200];
        double[] fast = new double[200];
        double[] y = new double[200];
        Random random = new Random(5);
        for (int i = 0; i < 200; i++) {
            whole[i] = i / 10;
            fast[i] = i / 20_000.0;
            y[i] = 100 + random.nextDouble();
        }
        Take take =
                new Take(
                        Map.of(
                                "boost.actual", new Take.Column(whole, y),
                                "engine.speed", new Take.Column(fast, y)),
                        List.of(new Take.Mark(1.25, "bump, here")));
        StringWriter out = new StringWriter();
        TakeCsv.write(take, van.signals(), layout, out);
        byte[] csv = out.toString().getBytes(StandardCharsets.UTF_8);
        CsvLook look = CsvLook.at(csv);
        if (layout == TakeCsv.Layout.LONG) {
            StringWriter wide = new StringWriter();
            LongForm.of(look).orElseThrow().widen(() -> new ByteArrayInputStream(csv), wide);
            out = wide;
        }
        Imported in = read(out.toString());
        for (String id : List.of("log.boost-pressure", "log.engine-speed")) {
            Take.Column back = in.take().columns().get(id);
            assertThat(back).as("%s of %s", id, in.take().columns().keySet()).isNotNull();
            assertThat(back.size()).as(id).isEqualTo(200);
            double[] values = new double[200];
            for (int i = 0; i < 200; i++) {
                values[i] = back.value(i);
            }
            assertThat(values).containsExactly(y);
        }
    }

    /** 996 steps of 0.1 kPa are 99.6 kPa, whatever a computer makes of it. */
    @Test
    void aStepOfTheScalingLeavesNoNoiseOfTheComputer() {
        double[] times = {0, 1, 2};
        double[] values = {996 * 0.1, -3 * 0.1, 1 / 3.0};
        StringWriter out = new StringWriter();
        TakeCsv.write(
                new Take(Map.of("boost.actual", new Take.Column(times, values)), List.of()),
                Vehicles.portage().signals(),
                TakeCsv.Layout.ONE_TIME,
                out);
        assertThat(out.toString().lines().skip(1).map(l -> l.split(",")[1]))
                .containsExactly("99.6", "-0.3", "0.3333333333333333");
    }
}

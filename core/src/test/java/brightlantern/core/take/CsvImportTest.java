package brightlantern.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvImport.Imported;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
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
        byte[] mixed = java.util.Arrays.copyOf(head, head.length + tail.length);
        System.arraycopy(tail, 0, mixed, head.length, tail.length);
        Dialect dialect =
                CsvLook.at(java.util.Arrays.copyOf(mixed, CsvLook.ENOUGH_BYTES)).dialect();
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
        TakeCsv.write(take, van, out);
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
                            : String.format(java.util.Locale.ROOT, "%.6f", v);
            expected[i] = Double.parseDouble(written);
            text.append(i).append(',').append(written).append('\n');
        }
        Take.Column column = read(text.toString()).take().columns().get("log.v");
        for (int i = 0; i < expected.length; i++) {
            assertThat(column.value(i)).isEqualTo(expected[i]);
        }
    }
}

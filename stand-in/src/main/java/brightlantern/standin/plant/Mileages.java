package brightlantern.standin.plant;

import brightlantern.wire.Bytes;
import java.nio.ByteBuffer;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleSupplier;

/** What the modules know of the distance, each by itself. */
public final class Mileages implements Part {
    private static final double KILOMETRES_AN_HOUR = 43;
    private static final double KILOMETRES_A_BURN_OFF = 560;
    private static final int SERVICES = 7;
    private static final double YEARS = 9.6;
    private static final double SECONDS_A_YEAR = 31_557_600;
    private static final double FOREIGN_HOURS = 6800;
    private static final String FOREIGN_VIN = "ZZHRN16D5F1770031";

    private final double truly;
    private final long now;
    private final Random random;
    private final Map<String, Bytes> records = new HashMap<>();
    private final Map<String, String> foreign = new HashMap<>();
    private double back;

    /**
     * @param truly kilometres driven
     * @param now seconds since 1970 at which it begins to live
     */
    public Mileages(double truly, long now, Random random) {
        this.truly = truly;
        this.now = now;
        this.random = random;
        double hours = truly / KILOMETRES_AN_HOUR;
        int burnOffs = (int) (truly / KILOMETRES_A_BURN_OFF);
        records.put("engine-hours", number(hours * 100));
        records.put("gearbox-distance", number((truly - 2) * 10));
        records.put("filter-distance", number((truly - 11) * 10));
        records.put("burn-offs", Bytes.of(burnOffs >> 8, burnOffs));
        records.put("brakes-distance", number(truly - 6));
        records.put("audio-hours", number(hours * 10));
        cluster();
    }

    private void cluster() {
        records.put("cluster-distance", number((truly - back) * 10));
        records.put("cluster-history", history(truly - back));
    }

    /** A service every so many months; whoever set the cluster back made them fit. */
    private Bytes history(double shown) {
        Bytes bytes = Bytes.of(SERVICES);
        for (int i = 0; i < SERVICES; i++) {
            double share = (i + 1.0) / (SERVICES + 0.4);
            long when = now - (long) ((1 - share) * YEARS * SECONDS_A_YEAR);
            double at = shown * share + random.nextInt(400);
            bytes = bytes.plus(number(when)).plus(number(at * 10));
        }
        return bytes;
    }

    private static Bytes number(double value) {
        return Bytes.of(ByteBuffer.allocate(4).putInt((int) Math.round(value)).array());
    }

    @Override
    public void step(Whole whole, double dt) {
        // within a visit no record grows so far that it would show
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        return Map.of("odometer.behind", () -> back);
    }

    @Override
    public Optional<Bytes> mileage(String id) {
        return Optional.ofNullable(records.get(id));
    }

    @Override
    public Map<String, String> foreignVins() {
        return Map.copyOf(foreign);
    }

    /** The cluster is set back by so many kilometres, or a module comes from another vehicle. */
    @Override
    public void fail(String mode, String of, double size) {
        switch (mode) {
            case "set-back" -> {
                back = size;
                cluster();
            }
            case "foreign" -> {
                foreign.put(of, FOREIGN_VIN);
                records.put(of + "-hours", number(FOREIGN_HOURS * 10));
            }
            default -> Part.super.fail(mode, of, size);
        }
    }
}

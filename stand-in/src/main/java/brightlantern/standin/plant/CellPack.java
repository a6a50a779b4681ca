package brightlantern.standin.plant;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * A high-voltage pack: cells in series, each an open-circuit voltage over charge behind its inner
 * resistance; sense leads that carry the small current of the monitor; a cooling compressor that
 * serves the pack before the cabin. A bad crimp in a sense lead adds the drop of the balancing and
 * measuring current, which rises with the ripple of the pack's own current.
 */
public final class CellPack implements Part {
    /** Cells whose charge lies so close together are balanced. */
    private static final double BALANCED = 0.002;

    /** Share of its charge that a bled cell loses in a second. */
    private static final double BLEEDS = 0.0001;

    public static final int CELLS = 96;

    private static final double AMPERE_HOURS = 37;
    private static final double CELL_OHM = 0.0011;

    /** Of the pack's current, what ripples through the monitor's input per ohm of lead. */
    private static final double RIPPLE_SHARE = 5.2e-5;

    private final Random random;
    private final double[] charge = new double[CELLS];
    private final double[] ohm = new double[CELLS];
    private final double[] volts = new double[CELLS];
    private final double[] celsius = new double[8];
    private int badLead = -1;
    private double leadOhm;
    private double amps;
    private double compressor;
    private double wanted;
    private double current;
    private double cabin = 24;
    private double evaporator = 20;
    private double charger;
    private final Taken compressorMotor = new Taken();
    private boolean balancing;
    private boolean keyOn;

    public CellPack(long seed) {
        random = new Random(seed);
        for (int c = 0; c < CELLS; c++) {
            charge[c] = 0.62 + 0.004 * random.nextGaussian();
            ohm[c] = CELL_OHM * (1 + 0.03 * random.nextGaussian());
        }
        Arrays.fill(celsius, 19);
        measure();
    }

    /**
     * A crimp of a sense lead has resistance.
     *
     * @param cell 1..96
     */
    public synchronized CellPack badLead(int cell, double ohms) {
        badLead = cell - 1;
        leadOhm = ohms;
        return this;
    }

    /** Open-circuit voltage of a cell over its charge: a polynomial of third order. */
    static double open(double charge) {
        return 3.2 + 1.55 * charge - 1.35 * charge * charge + 0.78 * charge * charge * charge;
    }

    @Override
    public synchronized void step(Whole w, double dt) {
        boolean on = w.driver().key() == 2;
        keyOn = on;
        balance(on, dt);
        charger +=
                ((w.driver().charger() && on && !w.running() ? 11 : 0) - charger) * Math.min(1, dt);
        double drive = on ? w.kilometresPerHour() * 0.25 + 90 * w.load() : 0;
        double wish = (on ? drive + 1.2 + current : 0) - charger;
        amps += (wish - amps) * Math.min(1, dt / 0.2);
        double mean = 0;
        for (int c = 0; c < CELLS; c++) {
            charge[c] = Math.max(0.02, Math.min(1, charge[c] - amps * dt / 3600 / AMPERE_HOURS));
            mean += charge[c] / CELLS;
        }
        double hottest = 0;
        for (int m = 0; m < celsius.length; m++) {
            double heating = amps * amps * CELL_OHM * 12 / 900;
            double cooling = (celsius[m] - 15) / 2400 + compressor / 100 * 0.02;
            celsius[m] += (heating * (1 + 0.02 * m) - cooling) * dt;
            celsius[m] = Math.max(12, celsius[m]);
            hottest = Math.max(hottest, celsius[m]);
        }
        wanted = on ? (hottest > 28 ? 70 : w.running() ? 35 : 0) : 0;
        wanted = on ? compressorMotor.or(wanted) : wanted;
        compressor += (wanted - compressor) * Math.min(1, dt / 2.5);
        current = compressor / 100 * 9;
        double share = hottest > 28 ? 0.3 : 1;
        evaporator += (22 - 17 * compressor / 70 * share - evaporator) * Math.min(1, dt / 40);
        cabin += (0.5 * evaporator + 13 - cabin) * Math.min(1, dt / 300);
        measure();
    }

    /** Bleeds the fuller cells until all lie within a little of the emptiest. */
    private void balance(boolean on, double dt) {
        balancing &= on;
        if (!balancing) {
            return;
        }
        double least = 1;
        double most = 0;
        for (double c : charge) {
            least = Math.min(least, c);
            most = Math.max(most, c);
        }
        for (int c = 0; c < CELLS; c++) {
            charge[c] -= charge[c] > least + BALANCED ? BLEEDS * dt : 0;
        }
        balancing = most - least > BALANCED;
    }

    @Override
    public List<Outlet> outlets() {
        return List.of(compressorMotor.outlet("compressor", 0x3301, () -> compressor, () -> keyOn));
    }

    @Override
    public Map<Integer, Doing> doings() {
        return Map.of(
                0x0401,
                new Doing() {
                    @Override
                    public String module() {
                        return "battery";
                    }

                    @Override
                    public int start() {
                        synchronized (CellPack.this) {
                            balancing = keyOn;
                            return keyOn ? 0 : 0x22;
                        }
                    }

                    @Override
                    public void stop() {
                        synchronized (CellPack.this) {
                            balancing = false;
                        }
                    }

                    @Override
                    public int[] result() {
                        synchronized (CellPack.this) {
                            return new int[] {balancing ? 1 : 2};
                        }
                    }
                });
    }

    /** A cell has lost this share of its charge, and its resistance has doubled. */
    private synchronized void worn(int cell, double share) {
        boolean whole = share == 0;
        charge[cell - 1] = charge[cell % CELLS] - share;
        ohm[cell - 1] = ohm[cell % CELLS] * (whole ? 1 : 2);
    }

    private void measure() {
        for (int c = 0; c < CELLS; c++) {
            double lead = c == badLead ? leadOhm * Math.abs(amps) * RIPPLE_SHARE : 0;
            volts[c] = open(charge[c]) - amps * ohm[c] - Math.signum(amps) * lead;
        }
    }

    private synchronized double over(boolean least) {
        double found = volts[0];
        for (double v : volts) {
            found = least ? Math.min(found, v) : Math.max(found, v);
        }
        return found;
    }

    private synchronized double sum() {
        double sum = 0;
        for (double v : volts) {
            sum += v;
        }
        return sum;
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        for (int c = 0; c < CELLS; c++) {
            int its = c;
            s.put("cell." + (c + 1), () -> volts[its] + 0.0005 * random.nextGaussian());
        }
        for (int m = 0; m < celsius.length; m++) {
            int its = m;
            s.put("pack.temperature." + (m + 1), () -> celsius[its]);
        }
        s.put("pack.volts", this::sum);
        s.put("pack.current", () -> amps + 0.05 * random.nextGaussian());
        s.put("pack.charge", () -> 100 * charge[0]);
        s.put("cell.least", () -> over(true));
        s.put("cell.most", () -> over(false));
        s.put("charger.current", () -> charger);
        s.put("compressor.wanted", () -> 60 * wanted);
        s.put("compressor.speed", () -> 60 * compressor);
        s.put("compressor.current", () -> current + 0.02 * random.nextGaussian());
        s.put("evaporator", () -> evaporator);
        s.put("cabin.temperature", () -> cabin);
        return s;
    }

    @Override
    public void fail(String mode, String of, double size) {
        if (mode.equals("sense-lead")) {
            badLead(Integer.parseInt(of), size);
        } else if (mode.equals("worn-cell")) {
            worn(Integer.parseInt(of), size);
        } else {
            Part.super.fail(mode, of, size);
        }
    }
}

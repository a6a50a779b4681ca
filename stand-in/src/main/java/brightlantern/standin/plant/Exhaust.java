package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.Map;
import java.util.function.DoubleSupplier;

/**
 * What follows the engine: gas and catalyst temperatures, and in a diesel the soot filter with its
 * loading and back pressure, and nitrogen oxides with their dosing. First-order heating; °C, g,
 * kPa, ppm.
 */
public final class Exhaust implements Part {
    /** Grams that are in a filter on the mean while it burns off as it should. */
    private static final double GATHERED = 12;

    /** Late injections heat the exhaust by so much while the filter is burnt off. */
    private static final double BURN_OFF_CELSIUS = 560;

    /** A burn-off ends with so much soot left, g. */
    private static final double BURNT_DOWN = 4;

    private static final double AMBIENT = 14;

    private final EngineSpec spec;
    private double gas = AMBIENT;
    private double front = AMBIENT;
    private double rear = AMBIENT;
    private double soot;
    private double sootRate = 1;
    private double drop;
    private double recirculation;
    private double flow;
    private double nitrogen;
    private double dosed;
    private double stored = 0.62;
    private boolean burning;
    private boolean running;

    /**
     * @param soot grams in the filter
     */
    public Exhaust(EngineSpec spec, double soot) {
        this.spec = spec;
        this.soot = soot;
    }

    /** Soot comes so many times faster, as from a cylinder that burns badly. */
    public synchronized Exhaust soots(double times) {
        sootRate = times;
        return this;
    }

    @Override
    public synchronized void step(Whole w, double dt) {
        double load = w.load();
        double rpm = w.rpm();
        boolean on = w.running();
        running = on;
        burning &= on && soot > BURNT_DOWN;
        double hot =
                on
                        ? (spec.diesel() ? 110 + 480 * load : 330 + 480 * load)
                                        * Math.min(1, 0.6 + rpm / 5000)
                                + (burning ? BURN_OFF_CELSIUS : 0)
                        : AMBIENT;
        gas += (hot - gas) * Math.min(1, dt / (on ? 6 : 90));
        front += (AMBIENT + (gas - AMBIENT) * 0.94 - front) * Math.min(1, dt / (on ? 25 : 120));
        rear +=
                (AMBIENT + (front - AMBIENT) * 0.96 + (on && front > 280 ? 25 : 0) - rear)
                        * Math.min(1, dt / (on ? 40 : 300));
        recirculation = on && spec.diesel() && w.coolant() > 50 ? Math.max(0, 45 - 60 * load) : 0;
        double air = on ? spec.litres() / 2 * rpm / 60 * 1.18 * (0.4 + load) : 0;
        flow = air * 3.6;
        if (spec.diesel()) {
            soot += on ? sootRate * (0.0006 + 0.003 * load) * dt : 0;
            // carbon burns off by itself only when the filter is really hot
            soot -= soot * Math.exp((rear - 640) / 40) * dt / 300;
            soot = Math.max(0, soot);
            drop = on ? air / 100 * (0.6 + 0.06 * soot) * (rear + 273) / 500 : 0;
            nitrogen +=
                    ((on ? 180 + 900 * load - 3 * recirculation : 0) - nitrogen) * Math.min(1, dt);
            double wanted = rear > 190 && on ? nitrogen * air * 1e-4 : 0;
            dosed += (wanted - dosed) * Math.min(1, dt / 0.5);
            stored += (Math.min(0.9, wanted > 0 ? 0.7 : stored) - stored) * Math.min(1, dt / 60);
        }
    }

    @Override
    public Map<Integer, Doing> doings() {
        return !spec.diesel()
                ? Map.of()
                : Map.of(
                        0x0501,
                        new Doing() {
                            @Override
                            public String module() {
                                return "dosing";
                            }

                            @Override
                            public int start() {
                                synchronized (Exhaust.this) {
                                    burning = running;
                                    return running ? 0 : 0x22;
                                }
                            }

                            @Override
                            public void stop() {
                                synchronized (Exhaust.this) {
                                    burning = false;
                                }
                            }

                            @Override
                            public int[] result() {
                                synchronized (Exhaust.this) {
                                    return new int[] {burning ? 1 : soot <= BURNT_DOWN ? 2 : 0};
                                }
                            }
                        });
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        s.put("exhaust.manifold", () -> gas);
        s.put("exhaust.front", () -> front);
        s.put("exhaust.rear", () -> rear);
        s.put("exhaust.flow", () -> flow);
        s.put("egr.duty", () -> recirculation);
        s.put("soot.mass", () -> soot);
        s.put("filter.pressure", () -> drop);
        s.put("nox.before", () -> nitrogen);
        s.put("nox.after", () -> nitrogen * (1 - stored));
        s.put("dosing.rate", () -> dosed);
        s.put("ammonia.level", () -> 100 * stored);
        return s;
    }

    @Override
    public void fail(String mode, String of, double size) {
        if (mode.equals("soots")) {
            soots(size);
            // what has gathered in the weeks since
            soot = size > 1 ? Math.max(soot, GATHERED * size) : Math.min(soot, GATHERED);
        } else {
            Part.super.fail(mode, of, size);
        }
    }
}

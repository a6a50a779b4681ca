package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleSupplier;

/**
 * Heat, oil and the belt: oil and radiator temperatures, thermostat, fan, oil pressure, alternator.
 * First-order heating throughout; °C, kPa.
 */
public final class Warmth implements Part {
    private static final double AMBIENT = 14;
    private static final double OPENS = 82;
    private static final double OPEN = 94;
    private static final int FAN_OUTPUT = 0x3004;
    private static final double FAN_RPM = 2600;
    private static final double FAN_AMPS = 28;

    private final EngineSpec spec;
    private double oil = 18;
    private double head = 18;
    private double radiator = AMBIENT;
    private double thermostat;
    private final Taken fanMotor = new Taken();
    private double fan;
    private double fanRpm;
    private double fanAmps;
    private boolean stands;
    private double oilKpa;
    private double wantedOil;
    private double alternator;
    private double runs;
    private double ran;
    private double friction;
    private double idle;
    private double power;
    private boolean ranBefore;

    public Warmth(EngineSpec spec, double starts) {
        this.spec = spec;
        this.runs = starts;
    }

    @Override
    public synchronized void step(Whole w, double dt) {
        double coolant = w.coolant();
        boolean on = w.running();
        runs += on && !ranBefore ? 1 : 0;
        ran = on ? ran + dt : 0;
        ranBefore = on;
        oil +=
                ((on ? coolant + 6 + 18 * w.load() : AMBIENT) - oil)
                        * Math.min(1, dt / (on ? 220 : 3000));
        head += ((on ? coolant + 4 + 14 * w.load() : coolant) - head) * Math.min(1, dt / 20);
        thermostat = Math.max(0, Math.min(100, 100 * (coolant - OPENS) / (OPEN - OPENS)));
        double flow = on ? thermostat / 100 : 0;
        radiator +=
                (AMBIENT + (coolant - AMBIENT) * (0.1 + 0.6 * flow) - radiator)
                        * Math.min(1, dt / 60);
        double wish = on && coolant > 93 ? Math.min(90, 12 * (coolant - 93)) : 0;
        stands = w.rpm() < 1;
        fan += (fanMotor.or(wish) - fan) * Math.min(1, dt / 0.4);
        double was = fanRpm;
        fanRpm += (FAN_RPM * fan / 100 * w.volts() / 13 - fanRpm) * Math.min(1, dt / 0.9);
        // torque of a fan rises with the square of its speed; running up takes more
        double share = fanRpm / FAN_RPM;
        fanAmps =
                w.driver().key() == 2
                        ? FAN_AMPS * share * share + Math.max(0, fanRpm - was) / dt / 300
                        : 0;
        // thin when warm: the pump's pressure falls to some two thirds of the cold one
        double thick = Math.max(0.45, 1.35 - oil / 150);
        wantedOil = w.rpm() > 60 ? Math.min(420, 90 + 0.14 * w.rpm()) : 0;
        oilKpa += (wantedOil * thick - oilKpa) * Math.min(1, dt / 0.4);
        alternator = on ? Math.max(20, Math.min(95, 35 + (14.2 - w.volts()) * 60 + fan / 5)) : 0;
        friction = w.rpm() > 60 ? spec.friction(w.rpm()) : 0;
        idle = on ? 800 + Math.max(0, 60 - coolant) * 6 : 0;
        power = (w.load() * spec.mostTorque()) * w.rpm() * 2 * Math.PI / 60 / 1000;
    }

    @Override
    public List<Outlet> outlets() {
        return List.of(fanMotor.outlet("engine", FAN_OUTPUT, () -> fan, () -> stands));
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        s.put("oil.temperature", () -> oil);
        s.put("head.temperature", () -> head);
        s.put("radiator.out", () -> radiator);
        s.put("thermostat", () -> thermostat);
        s.put("fan.duty", () -> fan);
        s.put("fan.speed", () -> fanRpm);
        s.put("fan.current", () -> fanAmps);
        s.put("oil.pressure", () -> oilKpa);
        s.put("oil.wanted", () -> wantedOil);
        s.put("alternator.duty", () -> alternator);
        s.put("torque.friction", () -> friction);
        s.put("idle.target", () -> idle);
        s.put("engine.power", () -> power);
        s.put("engine.starts", () -> runs);
        s.put("run.time", () -> ran);
        return s;
    }
}

package brightlantern.standin;

import brightlantern.standin.plant.PortagePlant.Moment;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;

/**
 * What each sensor of the Portage makes of a moment of the plant: value id → reading in the value's
 * own unit.
 */
final class PortageReadings {
    private PortageReadings() {}

    static Map<String, Function<Moment, Double>> all() {
        Map<String, Function<Moment, Double>> r = new HashMap<>();
        r.put("engine.speed", Moment::rpm);
        r.put("engine.load", m -> 100 * Math.min(1, m.demand()));
        r.put("boost.target", m -> 10 * m.boostTarget());
        r.put("boost.actual", Moment::boost);
        r.put("vane.command", Moment::vaneCommand);
        r.put("vane.position", Moment::vane);
        r.put("throttle.command", Moment::throttleCommand);
        r.put("throttle.position", Moment::throttle);
        r.put("air.mass", Moment::airMass);
        r.put("coolant", Moment::coolant);
        r.put("intake.air", Moment::intakeAir);
        r.put("ambient.pressure", Moment::ambient);
        r.put("pedal", Moment::pedal);
        r.put("vehicle.speed", m -> 3.6 * m.metresPerSecond());
        r.put("brakes.speed", m -> 3.6 * m.metresPerSecond());
        r.put("gear", m -> (double) m.gear());
        r.put("fuel.quantity", Moment::fuel);
        r.put("engine.supply", m -> m.supply() - 0.03);
        r.put("body.supply", m -> m.supply() - 0.05);
        r.put("torque.limit", m -> m.limited() ? 1.0 : 0.0);
        r.put("engine.state", m -> m.running() ? 2.0 : m.cranking() ? 1.0 : 0.0);
        r.put("engine.hours", Moment::hours);
        r.put("body.key", m -> m.cranking() ? 3.0 : m.key());
        r.put("odometer", Moment::odometer);
        r.put("outside.temperature", m -> 14.0);
        r.put("vane.current", Moment::vaneAmps);
        r.put("throttle.current", Moment::throttleAmps);
        r.put("trailer.plug", m -> m.trailer() ? 1.0 : 0.0);
        return r;
    }
}

package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import com.fasterxml.jackson.annotation.JsonCreator;
import java.util.List;
import java.util.Locale;

/**
 * Sensors that share a reference and an earth of a module, as they are written.
 *
 * @param module that reads them
 * @param plug its connector
 * @param reference its pin that gives 5 V; empty when no sensor here needs one
 * @param ground its pin for the sensors' earth
 * @param stud of the module's own earth
 * @param place of the module's connector
 */
public record Sensing(
        String id,
        String name,
        String system,
        String module,
        String plug,
        String reference,
        String ground,
        String stud,
        String place,
        double minutes,
        List<Felt> sensors) {
    public Sensing {
        reference = OrEmpty.text(reference);
        sensors = OrEmpty.list(sensors);
    }

    /** How a sensor tells what it feels. */
    public enum Kind {
        /** Two wires; its resistance pulls a bias down. */
        RESISTIVE,
        /** Three wires; a share of the reference. */
        DIVIDER;

        /**
         * @throws IllegalArgumentException when there is none of that word
         */
        @JsonCreator
        public static Kind of(String word) {
            return valueOf(word.toUpperCase(Locale.ROOT));
        }
    }

    /**
     * A sensor.
     *
     * @param pins for a divider reference, signal, earth; for a resistive one signal, earth
     * @param at the module's pin for the signal
     * @param ohm of the sensor: in all for a divider, at rest for a resistive one
     * @param pull ohms of the bias, for a resistive one
     * @param share that a divider tells at rest
     * @param value that its module makes of it
     * @param most that the module tells of it; none for what its bytes can carry
     * @param rest figure of its value at which it has these ohms, or tells this share
     * @param low code for a signal near earth
     * @param high code for a signal near the reference
     * @param implausible code for a figure that cannot be true; empty where nobody compares it
     * @param beside what tells the same figure by hand, such as a thermometer
     */
    public record Felt(
            String id,
            String name,
            Kind kind,
            String plug,
            List<String> pins,
            String at,
            double ohm,
            double pull,
            double share,
            String value,
            double most,
            double rest,
            String low,
            String high,
            String implausible,
            String beside,
            String place,
            double minutes) {
        public Felt {
            pins = OrEmpty.list(pins);
            value = OrEmpty.text(value);
            low = OrEmpty.text(low);
            high = OrEmpty.text(high);
            implausible = OrEmpty.text(implausible);
            beside = OrEmpty.text(beside);
            share = share == 0 ? 0.5 : share;
            pull = pull == 0 ? 2200 : pull;
        }
    }
}

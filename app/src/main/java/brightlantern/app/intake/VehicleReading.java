package brightlantern.app.intake;

import brightlantern.app.link.VehicleLinks;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vin;
import brightlantern.wire.WireException;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.springframework.stereotype.Component;

/** Reads who a vehicle is: its identification, its odometer, and what is known of its kind. */
@Component
class VehicleReading {
    /**
     * UDS address that most engine modules of a fleet without description will not have; the VIN
     * then comes from DoIP.
     */
    private static final int VIN_IDENTIFIER = 0xF190;

    private final VehicleLinks links;

    VehicleReading(VehicleLinks links) {
        this.links = links;
    }

    /**
     * What was read of a vehicle before a job is opened.
     *
     * @param trouble in words; empty when all went well
     */
    record Reading(
            String vin,
            String vinWords,
            boolean vinGood,
            OptionalDouble odometer,
            String trouble) {}

    Optional<VehicleDescription> descriptionOf(String vin) {
        try {
            return links.library().fitting(new Vin(vin));
        } catch (IllegalArgumentException bad) {
            return Optional.empty();
        }
    }

    Reading read(String address, String announced) {
        String vin = announced;
        String trouble = "";
        OptionalDouble odometer = OptionalDouble.empty();
        Optional<VehicleDescription> description = descriptionOf(announced);
        if (description.isPresent()) {
            VehicleDescription d = description.get();
            try {
                int address16 = d.module(d.live().vinModule()).orElseThrow().address();
                vin = links.link(address).module(address16).read(VIN_IDENTIFIER).asText();
                Double km =
                        links.link(address)
                                .read(d, List.of(d.live().odometer()))
                                .get(d.live().odometer());
                odometer = km == null ? OptionalDouble.empty() : OptionalDouble.of(km);
            } catch (WireException silent) {
                trouble =
                        silent.getMessage()
                                + ". "
                                + links.link(address).power()
                                + " The VIN shown is the one the gateway told.";
            }
        }
        try {
            Vin checked = new Vin(vin);
            boolean good = checked.checkDigitHolds();
            return new Reading(
                    vin,
                    good
                            ? "Check digit " + checked.expectedCheckDigit() + " is right."
                            : "Check digit is wrong: expected "
                                    + checked.expectedCheckDigit()
                                    + ", found "
                                    + checked.text().charAt(8)
                                    + ". Compare with the plate.",
                    good,
                    odometer,
                    trouble);
        } catch (IllegalArgumentException bad) {
            return new Reading(vin, bad.getMessage(), false, odometer, trouble);
        }
    }
}

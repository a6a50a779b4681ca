package brightlantern.app.seat;

import java.util.Map;
import java.util.function.Consumer;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Pages of the driver's seats. */
@Controller
@RequestMapping("/seat")
class SeatController {
    private final DriversSeats seats;

    SeatController(DriversSeats seats) {
        this.seats = seats;
    }

    private DriversSeats.DriversSeat seat(String address) {
        return seats.all().stream()
                .filter(s -> s.address().equals(address))
                .findFirst()
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "No stand-in runs at " + address + "."));
    }

    @GetMapping
    String list(Model model) {
        model.addAttribute("seats", seats.all());
        return "seat/seats";
    }

    @GetMapping("/{address}")
    String page(@PathVariable("address") String address, Model model) {
        model.addAttribute("seat", seat(address));
        return "seat/seat";
    }

    @GetMapping("/{address}/dashboard")
    String dashboard(@PathVariable("address") String address, Model model) {
        model.addAttribute("seat", seat(address));
        return "seat/seat :: dashboard";
    }

    @PostMapping("/{address}/{what}")
    String act(
            @PathVariable("address") String address,
            @PathVariable("what") String what,
            @RequestParam Map<String, String> form,
            RedirectAttributes flash) {
        DriversSeats.DriversSeat seat = seat(address);
        Map<String, Consumer<Map<String, String>>> acts =
                Map.of(
                        "key", f -> seat.key(Integer.parseInt(f.get("position"))),
                        "crank", f -> seat.crank(),
                        "drive", f -> seat.drive(f.get("program")),
                        "hand",
                                f ->
                                        seat.byHand(
                                                Double.parseDouble(f.get("pedal")),
                                                Integer.parseInt(f.get("gear")),
                                                Double.parseDouble(f.get("slope")),
                                                f.containsKey("brake")),
                        "charger", f -> seat.charger(Boolean.parseBoolean(f.get("on"))),
                        "trailer", f -> seat.trailer(Boolean.parseBoolean(f.get("on"))),
                        "hurry", f -> seat.hurry(Integer.parseInt(f.get("factor"))),
                        "plug", f -> seat.plug(f.get("module"), Boolean.parseBoolean(f.get("on"))),
                        "cut", f -> seat.cut(),
                        "repair",
                                f -> {
                                    seat.repair(f.get("repair"));
                                    flash.addFlashAttribute(
                                            "notice", "The workshop did it on the stand-in.");
                                });
        Consumer<Map<String, String>> act = acts.get(what);
        if (act == null) {
            throw new ResponseStatusException(
                    HttpStatus.NOT_FOUND, "The seat has no control '" + what + "'.");
        }
        try {
            act.accept(form);
        } catch (IllegalArgumentException | NullPointerException wrong) {
            flash.addFlashAttribute("error", "The seat did not take that: " + wrong.getMessage());
        }
        return "redirect:/seat/" + address;
    }
}

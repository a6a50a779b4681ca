package brightlantern.app.exercise;

import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.JobPages;
import brightlantern.core.configuration.Configuration;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.springframework.web.server.ResponseStatusException;

/**
 * What the pages of a configuration have in common: it, its gates, and the look before and after.
 */
@Component
class ConfigurationDesk {
    private final VehicleLinks links;

    ConfigurationDesk(VehicleLinks links) {
        this.links = links;
    }

    Configuration configuration(JobPages.Context context, String id) {
        return links.equipment(context.job())
                .flatMap(
                        e -> e.configurations().stream().filter(c -> c.id().equals(id)).findFirst())
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "This vehicle has no configuration '" + id + "'."));
    }

    List<GateState> gates(JobPages.Context context) {
        List<Procedure.GateRule> rules =
                links.equipment(context.job()).map(Equipment::writing).orElse(List.of());
        List<String> ids =
                rules.stream().flatMap(r -> r.filter().values().stream()).distinct().toList();
        return GateState.at(
                rules, context.description(), context.link().read(context.description(), ids));
    }

    void gates(JobPages.Context context, Model model) {
        List<GateState> gates = gates(context);
        model.addAttribute("gates", gates);
        model.addAttribute("opens", "write");
        model.addAttribute("open", gates.stream().allMatch(GateState::open));
    }

    String agree(
            JobPages.Context context,
            Configuration its,
            List<ConfigurationController.Change> changes,
            Model model) {
        model.addAttribute("configuration", its);
        model.addAttribute("changes", changes);
        gates(context, model);
        return "exercise/agree";
    }
}

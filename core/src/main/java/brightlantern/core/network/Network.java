package brightlantern.core.network;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;

/** The control modules of a vehicle, the buses that join them, and what feeds them. */
public record Network(List<Bus> buses, List<ControlModule> modules, List<Feed> feeds)
        implements Slice {
    public Network {
        buses = OrEmpty.list(buses);
        modules = OrEmpty.list(modules);
        feeds = OrEmpty.list(feeds);
    }

    /** The module that joins the buses and answers for the vehicle on the network. */
    public static final String GATEWAY = "gateway";

    /** The module of an id, if it is described. */
    public Optional<ControlModule> module(String moduleId) {
        return modules.stream().filter(m -> m.id().equals(moduleId)).findFirst();
    }

    /** The module at a logical address, if one is described. */
    public Optional<ControlModule> moduleAt(int address) {
        return modules.stream().filter(m -> m.address() == address).findFirst();
    }

    /** Modules of a bus in the order of its wire, the gateway and sub-modules left out. */
    public List<ControlModule> onWire(String busId) {
        return modules.stream()
                .filter(m -> m.bus().equals(busId))
                .filter(m -> !m.id().equals(GATEWAY) && m.under().isEmpty())
                .sorted(Comparator.comparingInt(ControlModule::order))
                .toList();
    }

    /** The wire knows modules by address; people know them by name. */
    public String named(String words) {
        String told = words;
        for (ControlModule m : modules) {
            String address = "%04X".formatted(m.address());
            told =
                    told.replaceAll(
                            "\\b[Mm]odule " + address + "\\b",
                            Matcher.quoteReplacement(m.name() + " (module " + address + ")"));
        }
        return told;
    }

    @Override
    public void define(References references) {
        references.define("buses", "a bus", buses, Bus::id);
        references.define("modules", "a module", modules, ControlModule::id);
        references.define("feeds", "a feed", feeds, Feed::id);
    }

    @Override
    public void check(References references) {
        references.each(
                "modules",
                modules,
                (m, at) -> {
                    at.needs("a bus", m.bus());
                    at.needs("a value", m.freezeFrame());
                    at.needs("a module", m.watches());
                    at.may("a module", m.under());
                });
        references.each(
                "buses",
                buses,
                (b, at) -> {
                    at.needs("a module", b.terminators());
                    b.connectors().forEach(c -> at.needs("a module", c.after()));
                });
        references.each("feeds", feeds, (f, at) -> at.needs("a module", f.modules()));
    }
}

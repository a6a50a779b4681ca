package brightlantern.core.code;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.RollCall.Miss;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** The fault codes that the modules of a vehicle can set. */
public record CodeTable(List<Code> codes) implements Slice {
    public CodeTable {
        codes = OrEmpty.list(codes);
    }

    /** A code of a missing message says something is amiss on the wire, not what. */
    private static final double MISSED_WEIGHT = 0.5;

    /** A code of a module, if it is described. */
    public Optional<Code> code(String moduleId, String code) {
        return codes.stream()
                .filter(c -> c.module().equals(moduleId) && c.code().equals(code))
                .findFirst();
    }

    /** Complaints among stored codes: who misses whom. */
    public Set<Miss> misses(List<StoredCode> stored) {
        return stored.stream()
                .flatMap(
                        c ->
                                code(c.moduleId(), c.code()).stream()
                                        .filter(d -> !d.misses().isEmpty())
                                        .map(d -> new Miss(c.moduleId(), d.misses())))
                .collect(Collectors.toSet());
    }

    /**
     * The written codes, told whom they miss, and for each module that watches another one the code
     * of missing it. What is written wins.
     */
    public CodeTable withMissed(Network network) {
        Map<String, String> missedBy = new HashMap<>();
        network.modules().forEach(m -> missedBy.put(m.missed(), m.id()));
        missedBy.remove("");
        List<Code> all = new ArrayList<>();
        Set<String> written = new HashSet<>();
        for (Code c : codes) {
            written.add(c.module() + " " + c.code());
            all.add(c.missing(missedBy.getOrDefault(c.code(), "")));
        }
        for (ControlModule listener : network.modules()) {
            listener.watches().stream()
                    .flatMap(id -> network.module(id).stream())
                    .filter(m -> !m.missed().isEmpty())
                    .filter(m -> written.add(listener.id() + " " + m.missed()))
                    .forEach(m -> all.add(missed(listener, m)));
        }
        return new CodeTable(all);
    }

    /** The same with these codes beside its own; what is written wins. */
    public CodeTable with(List<Code> more) {
        Set<String> written = new HashSet<>();
        codes.forEach(c -> written.add(c.module() + " " + c.code()));
        List<Code> all = new ArrayList<>(codes);
        more.stream().filter(c -> written.add(c.module() + " " + c.code())).forEach(all::add);
        return new CodeTable(all);
    }

    private static Code missed(ControlModule listener, ControlModule other) {
        return new Code(
                other.missed(),
                listener.id(),
                "No messages from " + other.name(),
                MISSED_WEIGHT,
                "network",
                "",
                "",
                other.id(),
                List.of(),
                "",
                List.of());
    }

    @Override
    public void define(References references) {
        references.add("a code", codes.stream().map(Code::code).toList());
    }

    @Override
    public void check(References references) {
        references.each(
                "codes",
                codes,
                (c, at) -> {
                    at.needs("a module", c.module());
                    at.needs("a value", c.uses());
                    at.may("a value", c.about());
                });
    }
}

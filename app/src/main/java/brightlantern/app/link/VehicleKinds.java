package brightlantern.app.link;

import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.library.ProcedureReader;
import brightlantern.core.reason.CircuitSuspects;
import brightlantern.core.reason.NetworkSuspects;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The kinds of vehicles that are described, with all that is derived from it, and what each can be
 * made to do. Read once; nothing of it changes.
 */
public final class VehicleKinds {
    private final VehicleLibrary library;
    private final Map<String, ProcedureReader.Result> doable;

    private VehicleKinds(VehicleLibrary library, Map<String, ProcedureReader.Result> doable) {
        this.library = library;
        this.doable = doable;
    }

    /**
     * @param folder with a folder for each kind
     * @throws IOException when it cannot be read
     */
    public static VehicleKinds read(Path folder) throws IOException {
        VehicleLibrary read =
                VehicleLibrary.read(folder)
                        .map(d -> CircuitSuspects.added(NetworkSuspects.added(d)));
        ProcedureReader reader = new ProcedureReader(folder);
        Map<String, ProcedureReader.Result> doable = new ConcurrentHashMap<>();
        read.descriptions().parallelStream().forEach(d -> doable.put(d.id(), read(reader, d)));
        List<String> mistakes = new ArrayList<>(read.mistakes());
        read.descriptions().forEach(d -> mistakes.addAll(doable.get(d.id()).mistakes()));
        return new VehicleKinds(new VehicleLibrary(read.descriptions(), mistakes), doable);
    }

    private static ProcedureReader.Result read(ProcedureReader reader, VehicleDescription d) {
        try {
            return reader.read(d);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    public VehicleLibrary library() {
        return library;
    }

    /** What a kind can be made to do, guided; empty for one that is not described. */
    List<Procedure> procedures(String id) {
        return Optional.ofNullable(doable.get(id))
                .map(ProcedureReader.Result::procedures)
                .orElse(List.of());
    }

    Optional<Equipment> equipment(String id) {
        return Optional.ofNullable(doable.get(id)).map(ProcedureReader.Result::equipment);
    }
}

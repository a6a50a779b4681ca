package brightlantern.core.vehicle;

import brightlantern.core.description.Slice;
import java.lang.reflect.Constructor;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * The slices of which a {@link VehicleDescription} is composed, as its components name them: a new
 * slice is a new component, and nothing else.
 */
final class Slices {
    private Slices() {}

    /** The kinds of slices, in the order of the components. */
    @SuppressWarnings("unchecked")
    static List<Class<? extends Slice>> kinds() {
        return Arrays.stream(VehicleDescription.class.getRecordComponents())
                .map(RecordComponent::getType)
                .filter(Slice.class::isAssignableFrom)
                .<Class<? extends Slice>>map(c -> (Class<? extends Slice>) c)
                .toList();
    }

    /** The sections of the description's files that a slice is read from. */
    static List<String> sections(Class<? extends Slice> kind) {
        return Arrays.stream(kind.getRecordComponents()).map(RecordComponent::getName).toList();
    }

    /** A slice from its sections; those that are not there are empty. */
    static Slice read(Class<? extends Slice> kind, ObjectNode whole, JsonMapper json) {
        return json.treeToValue(whole.deepCopy().retain(sections(kind)), kind);
    }

    static List<Slice> of(VehicleDescription description) {
        return Arrays.stream(VehicleDescription.class.getRecordComponents())
                .filter(c -> Slice.class.isAssignableFrom(c.getType()))
                .map(c -> (Slice) value(c, description))
                .toList();
    }

    /** A description of these slices; the others are empty. */
    static VehicleDescription compose(
            String id, String name, String engine, String vinPattern, List<Slice> given) {
        List<Object> arguments = new ArrayList<>(List.of(id, name, engine, vinPattern));
        for (Class<? extends Slice> kind : kinds()) {
            arguments.add(
                    given.stream()
                            .filter(kind::isInstance)
                            .findFirst()
                            .orElseGet(() -> empty(kind)));
        }
        return make(VehicleDescription.class, arguments.toArray());
    }

    /** The same description with these slices in the place of its own. */
    static VehicleDescription replaced(VehicleDescription description, List<Slice> by) {
        List<Slice> slices = new ArrayList<>(by);
        slices.addAll(of(description));
        return compose(
                description.id(),
                description.name(),
                description.engine(),
                description.vinPattern(),
                slices);
    }

    private static Slice empty(Class<? extends Slice> kind) {
        return make(
                kind,
                Arrays.stream(kind.getRecordComponents())
                        .map(c -> c.getType() == Optional.class ? Optional.empty() : null)
                        .toArray());
    }

    private static Object value(RecordComponent component, Object of) {
        try {
            return component.getAccessor().invoke(of);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(component + " cannot be read", impossible);
        }
    }

    private static <T> T make(Class<T> kind, Object... arguments) {
        try {
            @SuppressWarnings("unchecked")
            Constructor<T> canonical = (Constructor<T>) kind.getDeclaredConstructors()[0];
            return canonical.newInstance(arguments);
        } catch (ReflectiveOperationException impossible) {
            throw new IllegalStateException(kind + " cannot be made", impossible);
        }
    }
}

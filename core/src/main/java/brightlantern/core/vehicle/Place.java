package brightlantern.core.vehicle;

import java.util.List;

/** Where an item of a section stands in a file. */
record Place(YamlFile file, List<String> path) {
    /** File and line, from 1. */
    String told() {
        return file.place(path);
    }
}

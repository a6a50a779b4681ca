package brightlantern.core.vehicle;

import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** A file of a description, with the lines on which its parts stand. */
public final class YamlFile {
    private static final JsonMapper JSON = new JsonMapper();

    private final String name;
    private final Node root;
    private final ObjectNode content;

    private YamlFile(String name, Node root, ObjectNode content) {
        this.name = name;
        this.root = root;
        this.content = content;
    }

    /**
     * Reads a file; what does not fit the schema is told with file and line.
     *
     * @param base the folder in which files are named
     * @param mistakes to which its own are added
     * @return empty when it is no YAML with named sections
     * @throws IOException when it cannot be read
     */
    public static Optional<YamlFile> read(
            Path base, Path file, Schema schema, List<String> mistakes) throws IOException {
        String name = base.relativize(file).toString();
        String text = Files.readString(file);
        LoaderOptions options = new LoaderOptions();
        options.setAllowDuplicateKeys(false);
        Node root;
        JsonNode tree;
        try {
            root = new Yaml(options).compose(new StringReader(text));
            tree = JSON.valueToTree(new Content(options).of(root));
        } catch (MarkedYAMLException wrong) {
            int line = wrong.getProblemMark() == null ? 1 : wrong.getProblemMark().getLine() + 1;
            mistakes.add(name + ":" + line + ": not YAML: " + wrong.getProblem());
            return Optional.empty();
        }
        if (!(tree instanceof ObjectNode object) || !(root instanceof MappingNode)) {
            mistakes.add(name + ":1: expected sections with names");
            return Optional.empty();
        }
        YamlFile read = new YamlFile(name, root, object);
        for (Error error : schema.validate(tree)) {
            List<String> path = new ArrayList<>();
            for (int i = 0; i < error.getInstanceLocation().getNameCount(); i++) {
                path.add(String.valueOf(error.getInstanceLocation().getName(i)));
            }
            mistakes.add(
                    read.place(path) + ": " + String.join(".", path) + ": " + error.getMessage());
        }
        return Optional.of(read);
    }

    /** Makes plain lists, maps and scalars of what was parsed. */
    private static final class Content extends SafeConstructor {
        Content(LoaderOptions options) {
            super(options);
        }

        Object of(Node root) {
            return root == null ? null : constructDocument(root);
        }
    }

    /** What it holds, section by section. */
    public ObjectNode content() {
        return content;
    }

    /** File and line (from 1) of a part; of its nearest parent when it does not exist itself. */
    public String place(List<String> path) {
        Node at = root;
        for (String step : path) {
            Node next = null;
            if (at instanceof MappingNode map) {
                for (NodeTuple pair : map.getValue()) {
                    if (pair.getKeyNode() instanceof ScalarNode key
                            && key.getValue().equals(step)) {
                        next = pair.getValueNode();
                    }
                }
            } else if (at instanceof SequenceNode list
                    && step.matches("\\d+")
                    && Integer.parseInt(step) < list.getValue().size()) {
                next = list.getValue().get(Integer.parseInt(step));
            }
            if (next == null) {
                break;
            }
            at = next;
        }
        return name + ":" + (at.getStartMark().getLine() + 1);
    }
}

package brightlantern.wire.transport;

/** Where a module is reached within a vehicle; each transport knows its own kind. */
public sealed interface ModuleAddress permits LogicalAddress {
    /** As people read it, such as "module 1003". */
    String words();
}

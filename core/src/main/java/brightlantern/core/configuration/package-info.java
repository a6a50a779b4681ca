/**
 * What a module is told about the vehicle that it sits in: its VIN, what is fitted, trim codes of
 * injectors. Such items are read, shown in words, typed by a person, built for a new module from
 * VIN and options, and carried over from an old one. Read {@link
 * brightlantern.core.configuration.Item} first.
 */
package brightlantern.core.configuration;

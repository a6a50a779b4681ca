/**
 * Sounds of a vehicle: WAV recordings, the clicks of injectors in them, and which one sounds unlike
 * its fellows. Start with {@link brightlantern.core.sound.InjectorSound}.
 */
package brightlantern.core.sound;

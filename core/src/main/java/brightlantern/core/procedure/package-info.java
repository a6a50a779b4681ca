/** Gates: conditions that must hold before and during a test, and what would open them. */
package brightlantern.core.procedure;

/** The supply voltage in words. */
package brightlantern.core.battery;

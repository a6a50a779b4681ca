/**
 * A small language for conditions over values, such as {@code coolant > 70 °C and gear steady for 1
 * s}. Start with {@link brightlantern.core.filter.Filter}.
 */
package brightlantern.core.filter;

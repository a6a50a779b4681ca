/**
 * A value averaged in a grid over two others. Start with {@link
 * brightlantern.core.study.map.OperatingMap}.
 */
package brightlantern.core.study.map;

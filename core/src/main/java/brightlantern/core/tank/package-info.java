/**
 * The leak test of a tank system: its pressure curve in phases, each judged by itself, and what
 * they tell together. Start with {@link brightlantern.core.tank.TankTest}.
 */
package brightlantern.core.tank;

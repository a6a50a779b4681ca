package brightlantern.core.suspect;

/**
 * One of several ways to mend something, as a customer can choose between them.
 *
 * @param minutes of work
 * @param price of work and parts, in the workshop's currency
 * @param lasts for how long it is good
 * @param risk what may go wrong or has to be done afterwards
 */
public record RepairWay(
        String name, double minutes, double price, String parts, String lasts, String risk) {}

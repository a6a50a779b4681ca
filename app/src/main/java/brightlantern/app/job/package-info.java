/**
 * Jobs and what is kept of them: findings, sweeps, takes, repairs, the command log, and the shelf
 * of cases.
 */
package brightlantern.app.job;

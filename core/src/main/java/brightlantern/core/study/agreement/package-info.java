/**
 * Two values that must tell the same while nothing moves them apart. Read first: {@link Agreement}.
 */
package brightlantern.core.study.agreement;

/** Captures as files of IEEE C37.111 (IEC 60255-24). */
package brightlantern.core.capture.comtrade;

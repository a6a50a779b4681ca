/** The fourth stage: drive actuators, safely, and judge what they do. */
package brightlantern.app.exercise;

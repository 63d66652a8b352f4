/** Makes the demo archive's footage: an invented cable ferry, rendered clean and large, then degraded in known ways. */
package awlsmith.demo;

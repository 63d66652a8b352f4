/** Pictures taken or sent as two fields, and frames that only repeat others. */
package awlsmith.core.fields;

package dev.ironsieve.formats.ipfix;

/** Numbers in IANA's registry of IPFIX information elements. */
final class InformationElement {
  static final int OCTET_DELTA_COUNT = 1;
  static final int PACKET_DELTA_COUNT = 2;
  static final int PROTOCOL_IDENTIFIER = 4;
  static final int SOURCE_TRANSPORT_PORT = 7;
  static final int SOURCE_IPV4_ADDRESS = 8;
  static final int DESTINATION_TRANSPORT_PORT = 11;
  static final int DESTINATION_IPV4_ADDRESS = 12;
  static final int FLOW_END_SYS_UP_TIME = 21;
  static final int FLOW_START_SYS_UP_TIME = 22;
  static final int SOURCE_IPV6_ADDRESS = 27;
  static final int DESTINATION_IPV6_ADDRESS = 28;
  static final int ICMP_TYPE_CODE_IPV4 = 32;
  static final int OCTET_TOTAL_COUNT = 85;
  static final int PACKET_TOTAL_COUNT = 86;
  static final int APPLICATION_NAME = 96;
  static final int ICMP_TYPE_CODE_IPV6 = 139;
  static final int FLOW_START_SECONDS = 150;
  static final int FLOW_END_SECONDS = 151;
  static final int FLOW_START_MILLISECONDS = 152;
  static final int FLOW_END_MILLISECONDS = 153;
  static final int SYSTEM_INIT_TIME_MILLISECONDS = 160;
  static final int FIREWALL_EVENT = 233;
  static final int USER_NAME = 371;

  private InformationElement() {}
}

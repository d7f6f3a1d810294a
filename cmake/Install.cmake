# SPDX-License-Identifier: GPL-3.0-or-later
# Where Debian expects things.
set(share ${CMAKE_INSTALL_DATADIR})
install(FILES data/desktop/kranich.desktop DESTINATION ${share}/applications)
install(FILES data/desktop/kranich.metainfo.xml DESTINATION ${share}/metainfo)
install(FILES data/desktop/kranich-mime.xml DESTINATION ${share}/mime/packages RENAME kranich.xml)
install(FILES data/icons/kranich.svg DESTINATION ${share}/icons/hicolor/scalable/apps)
install(FILES data/icons/kranich.svg DESTINATION ${share}/icons/hicolor/scalable/mimetypes RENAME application-x-kranich.svg)
install(FILES data/man/kranich.1 data/man/kranich-cli.1 data/man/kranich-bench.1 DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
install(DIRECTORY data/demo data/shelf DESTINATION ${share}/kranich)
install(FILES docs/kranich.schema.json docs/file-format.md docs/measures.md docs/bench-protocol.md DESTINATION ${CMAKE_INSTALL_DOCDIR})
install(FILES data/fonts/OFL.txt DESTINATION ${CMAKE_INSTALL_DOCDIR} RENAME fonts-OFL.txt)
install(FILES debian/copyright DESTINATION ${CMAKE_INSTALL_DOCDIR})

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME kranich)
set(CPACK_PACKAGE_CONTACT "The Kranich developers <kranich@example.org>")
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_PACKAGE_SECTION science)
set(CPACK_DEBIAN_PACKAGE_DESCRIPTION "workbench for aircraft landing gear
 Kranich helps homebuilders and scale-model builders design fixed or
 retractable landing gear: wheels relative to the centre of gravity, stance,
 springs, the swing into the well, and the sequence of doors and legs.")
set(CPACK_STRIP_FILES ON)
include(CPack)

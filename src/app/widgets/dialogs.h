// SPDX-License-Identifier: GPL-3.0-or-later
//! Windows beside the stations: the wheel shelf, the scales, the variants side by side.
#pragma once

#include <QWidget>

#include "app/document/document.h"

namespace kranich::app {

//! Retract units of the shelf, and of the builder's own, held against the aircraft; double-click fits one.
QWidget* make_unit_dialog(Document& document, const std::string& leg, QWidget* parent);
//! Drives that could move a leg, side by side with what does; one is fitted, the others keep the reason why
//! not.
QWidget* make_drive_dialog(Document& document, const std::string& leg, QWidget* parent);
//! Wheels of the shelf ranked for a leg; double-click fits one. A diagram shows the tyre under its load.
QWidget* make_wheel_dialog(Document& document, const std::string& leg, QWidget* parent);

//! Reads three wheel scales over a serial line (docs/bench-protocol.md) or from the simulated set, and takes
//! their readings into the weighing.
QWidget* make_scales_dialog(Document& document, QWidget* parent);

//! What of the design goes into the report, and its PDF.
QWidget* make_report_dialog(Document& document, QWidget* parent);

//! Every sheet for the bench, to look at and to write as PDF, SVG or DXF.
QWidget* make_shop_dialog(Document& document, QWidget* parent);

//! The aircraft's outline traced over a picture, from the side, from ahead and from above.
QWidget* make_outline_dialog(Document& document, QWidget* parent);

//! The gear in space, shaded, turned and cut open; what a leg sweeps as STL.
QWidget* make_shaded_dialog(Document& document, QWidget* parent);
//! Writes that dialog's swept volume to a file; false where it is no such dialog.
bool write_swept_from(QWidget* dialog, const QString& path);

//! Joints and materials of the legs, alignment and lay-up: the lists that the Leg page has no room for.
QWidget* make_leg_dialog(Document& document, const std::string& leg, QWidget* parent);

//! Coils at hand and bows that were flown: what the builder's own shelf holds.
QWidget* make_own_springs_dialog(Document& document, QWidget* parent);

//! Parts that could be taken for one place: mass times number, price, CG; takes one into the ledger.
QWidget* make_parts_dialog(Document& document, QWidget* parent);

//! The least changes after which nothing fails, over all that may move; or the limits that contradict.
QWidget* make_hold_dialog(Document& document, QWidget* parent);

//! The design beside its pinned state and its variants: every figure, what differs, and drawings laid over.
QWidget* make_compare_dialog(Document& document, QWidget* parent);

}  // namespace kranich::app

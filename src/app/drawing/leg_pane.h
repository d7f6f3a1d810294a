// SPDX-License-Identifier: GPL-3.0-or-later
//! The panes of Leg: the leg large with its parts, what each is left with, the load of a case where it acts
//! and how the leg gives under it.
#pragma once

#include "app/drawing/board.h"

namespace kranich::app {

class LegPane : public Pane {
 public:
  enum class View { ahead, starboard };
  LegPane(Document& document, View view) : Pane(document), view_(view) {}
  std::string leg = "main";  //!< id
  std::string load_case;     //!< which is drawn; empty: the one that decides for the worst part
  QString name() const override {
    return view_ == View::ahead ? QObject::tr("Leg from ahead") : QObject::tr("Leg from port");
  }
  QRectF bounds() const override;
  QMarginsF margins() const override { return {84, 64, 84, 92}; }
  void draw(Sheet& sheet) override;
  std::vector<Handle> handles() const override;

  //! The case that is drawn: an index into the leg's cases; nothing where there is none.
  std::optional<size_t> shown_case() const;

 private:
  const LegStrength* strength() const;
  Verdict verdict_of(const std::string& part) const;
  QPointF map(const Vec3& p) const {
    return view_ == View::ahead ? QPointF(p.y(), p.z()) : QPointF(p.x(), p.z());
  }
  void draw_wheel(Sheet& sheet, const Leg& l) const;
  void draw_members(Sheet& sheet, const LegStrength& s) const;
  void draw_mount(Sheet& s, const Leg& l) const;
  void draw_made_of(Sheet& s, const Leg& l) const;
  void draw_joints(Sheet& sheet, const Leg& l, const LegStrength& s) const;
  void draw_load(Sheet& sheet, const Leg& l, const LegStrength& s, size_t which) const;
  void draw_stress(Sheet& sheet, const LegStrength& s, size_t which) const;
  void draw_deflection(Sheet& sheet, const LegStrength& s, size_t which) const;
  void call_out_worst(Sheet& sheet, const LegStrength& s) const;
  View view_;
};

}  // namespace kranich::app

// SPDX-License-Identifier: GPL-3.0-or-later
//! Findings on the screen: the band with its needle, the row in a page, the strip of the tightest margins,
//! and the card that says why and what would cure.
#pragma once

#include <QAbstractButton>
#include <QFrame>
#include <QLabel>
#include <QTimer>
#include <QVBoxLayout>
#include <QWidget>

#include "app/document/background.h"
#include "app/document/document.h"
#include "core/assess/cures.h"

namespace kranich::app {

//! A text of the core or of a file, to be shown: never taken for markup, wherever it is put. Not for entries,
//! where it would be typed back.
QString text_of(const std::string& of_a_file);
//! A word of ours: a title, a choice.
QString text_of(std::string_view ours);
inline QString text_of(const char* ours) { return text_of(std::string_view(ours)); }
//! An id, a key: the same in every language.
inline QString word_of_file(std::string_view s) {
  return QString::fromUtf8(s.data(), static_cast<qsizetype>(s.size()));
}
//! What the core says, in words and units; with first letter large where it stands as a sentence of its own.
QString text_of(const Text& text, UnitSystem units);
QString sentence_of(const Text& text, UnitSystem units);
//! The same for a label that shows markup: what names a number of the design leads to its entry (link
//! "entry:" and its path).
QString html_of(const Text& text, UnitSystem units);
//! Takes everything out of a layout. What is taken out is gone at once and deleted later: it may be a button
//! that was just pressed.
void clear_layout(QLayout* layout);
//! As it stands, in a label that shows markup.
inline QString html(const QString& s) { return s.toHtmlEscaped(); }
//! A heading of a word: its first letter large.
inline QString capitalised(const QString& s) { return s.left(1).toUpper() + s.mid(1); }
QString value_text(const Finding& f, UnitSystem units);
QString limit_text(const Finding& f, UnitSystem units);
QString title_of(const Finding& f, UnitSystem units);

//! Draws the band of a finding's limits with a needle at its value, and one at the pinned design's.
//! Beneath the needle the spread over the build tolerances.
void draw_band(QPainter& painter, const QRectF& area, const Finding& finding, const Finding* pinned,
               const Spread* spread = nullptr);
//! "may fail" where a verdict does not hold over the tolerances; empty where it does.
QString over_box_text(const Finding& finding, const Spread* spread);

//! The worst of a check in another assessment.
const Finding* same_check(const Assessment* in, const Finding& f);

//! One finding as a button: large as a row in a page, or as a card in the strip.
class FindingButton : public QAbstractButton {
  Q_OBJECT
 public:
  enum class Shape { row, card };
  FindingButton(Shape shape, QWidget* parent = nullptr);
  void show_finding(const Finding* finding, const Finding* before, const Document& document, bool pinned);
  const std::string& key() const { return key_; }
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent*) override;

 private:
  Shape shape_;
  std::optional<Finding> finding_, before_;
  std::optional<Spread> spread_;
  bool pinned_ = false;
  bool two_lines_ = false;  //!< of a row: its title needs a second line
  UnitSystem units_ = UnitSystem::metric;
  std::string key_;
};

//! The findings of one station, worst first, one of them chosen; below them why, and cures with a button to
//! try each.
class FindingList : public QWidget {
  Q_OBJECT
 public:
  FindingList(Document& document, Station station, QWidget* parent = nullptr);
  void choose(const std::string& key);
  const std::string& chosen() const { return chosen_; }
  //! What is chosen now; null if there is nothing to say.
  const Finding* chosen_finding() const;
  int cure_count() const { return static_cast<int>(cures_.size()); }
  QString why() const { return why_text_->text(); }

 signals:
  void chosen_changed();

 protected:
  void showEvent(QShowEvent*) override { cure_timer_.start(); }

 private:
  void refresh();
  void refresh_why();
  void refresh_cures();
  void show_cures();

  Document& document_;
  Station station_;
  std::string chosen_;
  bool chosen_by_hand_ = false;
  QVBoxLayout* rows_;
  std::vector<FindingButton*> buttons_;
  QLabel* noted_;
  QFrame* why_;
  QLabel* why_text_;
  class OwnLimitRow* own_limit_;
  QVBoxLayout* cure_rows_;
  QTimer cure_timer_;
  Background cure_work_;
  bool cures_outdated_ = false;  //!< the hand moved on while they were solved
  std::vector<Cure> cures_;
};

//! The tightest margins of the whole design, always in sight.
class MarginStrip : public QWidget {
  Q_OBJECT
 public:
  explicit MarginStrip(Document& document, QWidget* parent = nullptr);

 signals:
  void go_to(kranich::Station station, const QString& key);
  void measure_next();

 protected:
  void resizeEvent(QResizeEvent*) override;

 private:
  void refresh();
  Document& document_;
  QLabel* heading_;
  QLabel* count_;
  QWidget* cards_;
  std::vector<FindingButton*> buttons_;
};

}  // namespace kranich::app

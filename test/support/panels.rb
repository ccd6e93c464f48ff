# frozen_string_literal: true

# What is set stands in panels beside the picture: nothing in them is wider than they are.
module Panels
  # In the way of nobody's mouse: what is under the middle of each.
  REACHED = <<~JS
    [...document.querySelectorAll(".draw-menu button")].filter((button) => {
      const { x, y, width, height } = button.getBoundingClientRect();
      return !button.contains(document.elementFromPoint(x + width / 2, y + height / 2));
    }).map((button) => button.textContent)
  JS
  # Names of what reaches out of the panel to the right.
  WIDER = <<~JS
    (() => {
      const edge = document.querySelector("%<panel>s").getBoundingClientRect().right;
      const all = [...document.querySelectorAll("%<panel>s :is(input, button, select, textarea, label)")];
      return all.filter((one) => one.checkVisibility() && one.getBoundingClientRect().right > edge + 1).map((one) => one.name || one.textContent);
    })()
  JS

  # With all that is folded open.
  def wider(panel)
    execute_script("for (const group of document.querySelectorAll('#{panel} details.more')) group.open = true")
    evaluate_script(format(WIDER, panel:))
  end
end

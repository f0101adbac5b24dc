# A kernel for x86 that says one line on the first serial port and stops: the last stage of the chains that are started in
# the emulator. It is entered as loaders enter a kernel: its setup code in real mode, 32-bit code (The Linux/x86 Boot
# Protocol), or as an EFI program (PE/COFF, UEFI 2.10 §4.1). With DISK defined it speaks only where an initial disk was
# loaded. Assembled by GNU as.
        .intel_syntax noprefix
        .set    SERIAL, 0x3f8
# Says the text at the source index on the serial line and stops; 1: stops at once.
        .macro  speak
        mov     dx, SERIAL
        cld
2:      lodsb
        test    al, al
        jz      1f
        out     dx, al
        jmp     2b
1:      hlt
        jmp     1b
        .endm
        .text
        .code16
start:  .ascii  "MZ"
        .org    0x3c
        .long   pe - start
pe:     .ascii  "PE\0\0"
        .word   0x8664, 1
        .long   0, 0, 0
        .word   section - optional, 0x0206
optional:
        .word   0x20b
        .byte   2, 20
        .long   text_end - text, 0, 0, efi - start, text - start
        .quad   0
        .long   0x200, 0x200
        .word   0, 0, 1, 0, 0, 0
        .long   0, image_end - start, text - start, 0
        .word   10, 0
        .quad   0, 0, 0, 0
        .long   0, 6
        .quad   0, 0, 0, 0, 0, 0
section:
        .ascii  ".text\0\0\0"
        .long   text_end - text, text - start, text_end - text, text - start, 0, 0
        .word   0, 0
        .long   0x60000020

        .org    0x1f1
        .byte   1                               # setup sectors
        .word   0
        .long   (text_end - text) / 16
        .word   0, 0, 0
        .word   0xaa55
        .byte   0xeb, setup - (. + 1)           # jump over the header
        .ascii  "HdrS"
        .word   0x020f
        .long   0
        .word   0
        .word   name - start - 0x200
        .byte   0, 1                            # loaded high
        .word   0
        .long   0x100000
ramdisk:
        .long   0, 0
        .long   0
        .word   0
        .byte   0, 0
        .long   0
        .long   0x7fffffff
        .long   0x1000
        .byte   1, 12
        .word   0
        .long   255
        .long   0
        .quad   0
        .long   payload - text, payload_end - payload
        .quad   0
        .quad   0x100000
        .long   0x200000
        .long   0

setup:  mov     ax, cs
        sub     ax, 0x20
        mov     ds, ax
        .ifdef  DISK
        cmp     dword ptr [ramdisk - start + 4], 0
        je      1f
        .endif
        mov     si, offset said - start
        speak
name:   .asciz  "1.0.0-made-for-tests"
said:   .ascii  "\r\n"
        .ascii  "ZB-STARTED-HERE"
        .asciz  "\r\n"

        .org    0x400
text:
        .code32
        .ifdef  DISK
        cmp     dword ptr [esi + 0x21c], 0
        je      1f
        .endif
        call    0f
0:      pop     esi
        add     esi, offset again - 0b
        speak

        .code64
efi:    lea     rsi, [rip + again]
        speak
again:  .ascii  "\r\n"
        .ascii  "ZB-STARTED-HERE"
        .asciz  "\r\n"
payload:
        .byte   0x1f, 0x8b, 8, 0, 0, 0, 0, 0
        .fill   4096, 1, 0x5a
payload_end:
        .balign 512
text_end:
image_end:
